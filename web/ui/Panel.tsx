import type { ReactNode } from 'react'
import { X } from 'lucide-react'

interface Props {
  readonly title: string
  readonly onClose: () => void
  readonly children: ReactNode
}

/** What stands at the right of a table: one chosen thing with all that can be done to it. */
export const Panel = ({ title, onClose, children }: Props) => (
  <aside aria-label={title} className="min-h-0 overflow-y-auto border-l border-base-300 px-4 py-3">
    <div className="mb-3 flex items-start justify-between gap-3">
      <h2 data-panel className="text-lg leading-tight font-bold">
        {title}
      </h2>
      <button type="button" className="cursor-pointer p-1" aria-label={`Close ${title}`} onClick={onClose}>
        <X size={16} aria-hidden />
      </button>
    </div>
    {children}
  </aside>
)
