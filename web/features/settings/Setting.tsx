import { type ReactNode, useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import { useDecision } from '../../api/use-decision.ts'
import { Decision } from '../../ui/Decision.tsx'
import { Drafted } from '../../ui/Drafted.tsx'

interface Props {
  readonly title: string
  /** What it does, and to whom. */
  readonly does: ReactNode
  /** How it is now. */
  readonly now: ReactNode
  /** What changes it; `undefined` while nothing is changed. */
  readonly edit: Omit<Extract<EditRequest, { kind: 'workspace.change' }>, 'kind'> | undefined
  readonly label: string
  readonly onLeave: () => void
  readonly children: ReactNode
}

/** One setting: how it is, what it does to whom, and the act that changes it, with its effect first. */
export function Setting({ title, does, now, edit, label, onLeave, children }: Props) {
  const [isOpen, setOpen] = useState(false)
  const close = () => {
    setOpen(false)
    onLeave()
  }
  return (
    <section aria-label={title} className="border-t border-base-content py-4">
      <div className="flex items-start justify-between gap-x-6 gap-y-2 max-md:flex-col">
        <div className="min-w-0">
          <h3 className="font-bold">{title}</h3>
          <p className="quiet mb-1 text-sm">{does}</p>
          <div>{now}</div>
        </div>
        {!isOpen && (
          <button
            type="button"
            className="btn-plain shrink-0"
            aria-label={`Change: ${title}`}
            onClick={() => setOpen(true)}
          >
            Change …
          </button>
        )}
      </div>
      {isOpen && (
        <Drafted
          onLeave={close}
          decision={
            edit === undefined ? null : <Changing title={title} edit={edit} label={label} onLeave={close} />
          }
        >
          {children}
        </Drafted>
      )}
    </section>
  )
}

interface ChangingProps {
  readonly title: string
  readonly edit: Omit<Extract<EditRequest, { kind: 'workspace.change' }>, 'kind'>
  readonly label: string
  readonly onLeave: () => void
}

function Changing({ title, edit, label, onLeave }: ChangingProps) {
  const decision = useDecision([{ kind: 'workspace.change', ...edit }], `${title} changed.`, onLeave)
  return <Decision label={label} onLeave={onLeave} {...decision} />
}
