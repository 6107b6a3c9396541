import { useState } from 'react'
import type { PersonView } from '#contract/views.ts'
import { useDecision } from '../../api/use-decision.ts'
import { Decision } from '../../ui/Decision.tsx'

/** Whether somebody is let in: suspending ends all access at once and keeps the rest; bringing back gives it again. */
export function Standing({ person }: { readonly person: PersonView }) {
  const [isOpen, setOpen] = useState(false)
  const isSuspended = person.status === 'suspended'
  if (!person.maySuspend) return null
  return (
    <section aria-label="Standing" className="mt-5 border-t border-base-content pt-3">
      {isSuspended && <p className="mb-2 text-error">Suspended: no access anywhere; all else is kept.</p>}
      {isOpen ? (
        <Deciding person={person} isSuspended={isSuspended} onDone={() => setOpen(false)} />
      ) : (
        <button type="button" className="btn-plain" onClick={() => setOpen(true)}>
          {isSuspended ? 'Bring back …' : 'Suspend …'}
        </button>
      )}
    </section>
  )
}

interface DecidingProps {
  readonly person: PersonView
  readonly isSuspended: boolean
  readonly onDone: () => void
}

function Deciding({ person: { id, name }, isSuspended, onDone }: DecidingProps) {
  const edit = { kind: isSuspended ? 'person.resume' : 'person.suspend', person: id } as const
  const said = isSuspended ? `${name} is back.` : `${name} is suspended.`
  const decision = useDecision([edit], said, onDone)
  return (
    <Decision act={isSuspended ? `Bring ${name} back` : `Suspend ${name}`} onLeave={onDone} {...decision} />
  )
}
