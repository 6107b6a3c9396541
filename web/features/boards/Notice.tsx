import { type ReactNode, useEffect, useRef } from 'react'
import { useEscape } from '../../ui/use-escape.ts'

interface Props {
  readonly label: string
  readonly onClose: () => void
  /** It is only said, and whoever writes goes on. */
  readonly isSaid?: boolean
  readonly children: ReactNode
}

/** Something to decide about what was just tried: above the board, with the focus. */
export function Notice({ label, onClose, isSaid = false, children }: Props) {
  const box = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (!isSaid) box.current?.focus()
  }, [isSaid])
  return (
    <div
      ref={box}
      {...useEscape(onClose)}
      tabIndex={-1}
      role={isSaid ? 'status' : 'group'}
      aria-label={label}
      className="mb-2 max-w-3xl border-l-4 border-warning bg-base-200 px-3 py-2 outline-none"
    >
      {children}
      {isSaid && (
        <button type="button" className="btn-inline mt-1 text-sm" onClick={onClose}>
          Close
        </button>
      )}
    </div>
  )
}
