import { useState } from 'react'
import type { MyAccessView } from '#contract/views/people.ts'
import type { HandoverView } from '#contract/views/roles.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import { privilegeWords } from '#core/words/privilege.ts'
import { useChange } from '../../../api/use-change.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { useHere } from '../../../api/use-here.ts'
import { Day, Time } from '../../../ui/dates.tsx'
import { Decision } from '../../../ui/Decision.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'

const shownAtFirst = 6

interface MayProps {
  readonly privileges: readonly Privilege[]
  readonly asleep: readonly Privilege[]
}

/** What a role lets one do: the first few, and the rest when it is asked for. */
export function May({ privileges, asleep }: MayProps) {
  const [isOpen, setOpen] = useState(false)
  if (privileges.length === 0)
    return <p className="text-sm">No privileges in the workspace, only what is shared with you.</p>
  const shown = isOpen ? privileges : privileges.slice(0, shownAtFirst)
  return (
    <>
      <p className="text-sm">You may</p>
      <ul className="list-disc pl-5 text-sm">
        {shown.map(each => (
          <li key={each} className={asleep.includes(each) ? 'quiet' : ''}>
            {privilegeWords[each]}
            {asleep.includes(each) && ' (no effect here: only over the whole workspace)'}
          </li>
        ))}
      </ul>
      {privileges.length > shownAtFirst && (
        <button
          type="button"
          className="btn-inline text-sm"
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
        >
          {isOpen ? 'Show fewer' : `Show ${privileges.length - shownAtFirst} more`}
        </button>
      )}
    </>
  )
}

/** Owners who offer to hand the workspace over: taken or declined, with what it does first. */
export const Handovers = ({ handovers }: Pick<MyAccessView, 'handovers'>) =>
  handovers.map(each => <Handover key={each.id} handover={each} />)

function Handover({ handover }: { readonly handover: HandoverView }) {
  const { slug, workspace } = useHere()
  const { id, from, at, reason, keeps } = handover
  const { apply, problem, isBusy } = useChange(slug)
  const [isTaking, setTaking] = useState(false)
  const decline = () =>
    apply(
      [{ kind: 'handover.answer', handover: id, accepted: false }],
      `You declined the offer of ${from.name}.`,
    )
  return (
    <section aria-label="Offer to hand over the workspace" className="mb-5 border-l-4 border-warning pl-3">
      <h2 className="font-bold">
        {from.name} offers to hand over {workspace.name} to you
      </h2>
      <p className="quiet text-sm">
        <Day at={at} />
        {reason !== '' && ` · “${reason}”`}
      </p>
      <p>
        You would become an owner, {from.name} would become {keeps}.
      </p>
      <ProblemNote problem={problem} />
      {isTaking ? (
        <Taking handover={handover} onLeave={() => setTaking(false)} />
      ) : (
        <p className="mt-2 flex gap-2">
          <button type="button" className="btn-main" onClick={() => setTaking(true)}>
            Accept …
          </button>
          <button type="button" className="btn-plain" disabled={isBusy} onClick={() => void decline()}>
            Decline
          </button>
        </p>
      )}
    </section>
  )
}

function Taking({ handover, onLeave }: { readonly handover: HandoverView; readonly onLeave: () => void }) {
  const edit = { kind: 'handover.answer', handover: handover.id, accepted: true } as const
  const decision = useDecision([edit], 'You are now an owner of the workspace.', onLeave)
  return <Decision label="Accept and become owner" onLeave={onLeave} {...decision} />
}

/** Who looked at the tree through one’s eyes, when and why. */
export function Looks({ viewingSessions }: Pick<MyAccessView, 'viewingSessions'>) {
  if (viewingSessions.length === 0) return null
  return (
    <section aria-label="Who saw the workspace as me" className="mt-4">
      <h2 className="mb-1 text-lg font-bold">Who saw the workspace as me</h2>
      {viewingSessions.map(({ id, by, at, reason }) => (
        <p key={id} className="border-t border-base-300 py-1">
          {by.name}, <Day at={at} /> <Time at={at} />
          <span className="quiet block text-sm">“{reason}”</span>
        </p>
      ))}
    </section>
  )
}
