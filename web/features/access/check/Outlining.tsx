import { useState } from 'react'
import { useViewingSessionsQuery } from '../../../api/roles.ts'
import { useChange } from '../../../api/use-change.ts'
import { useHere } from '../../../api/use-here.ts'
import { Time } from '../../../ui/dates.tsx'
import { onSubmit } from '../../../ui/on-submit.ts'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'

/**
 * Whoever may check anyone's access asks about places that they do not see by looking at the outline, for an hour and
 * with a reason: only then an answer is about everything.
 */
export function Outlining() {
  const { slug, workspace } = useHere()
  const mayCheck = workspace.me.privileges.includes('check access')
  const { data: viewingSessions } = useViewingSessionsQuery(slug, { skip: !mayCheck })
  const open = viewingSessions?.sessions.find(each => each.isOpen && each.through === null)
  const [reason, setReason] = useState('')
  const { apply, problem, isBusy } = useChange(slug)
  if (!mayCheck)
    return <p className="quiet text-sm">You can check your own access and the places that you share.</p>
  if (viewingSessions === undefined) return null
  if (open !== undefined)
    return (
      <p className="border-l-4 border-base-content pl-3 text-sm">
        You have outline access until <Time at={open.until} />. Answers include all places except private
        folders. The history shows this.
      </p>
    )
  const begin = () =>
    apply(
      [{ kind: 'session.begin', session: 'new:session', through: null, reason }],
      'You have outline access for one hour.',
    )
  return (
    <form
      className="grid gap-2 border-l-4 border-base-300 pl-3"
      onSubmit={onSubmit(async () => {
        await begin()
      })}
    >
      <p className="text-sm">
        Places that you cannot see are left out. To include them, start outline access for one hour.
      </p>
      <input
        className="field"
        aria-label="Reason for outline access"
        placeholder="Reason, kept in the history"
        maxLength={500}
        value={reason}
        onChange={event => setReason(event.target.value)}
      />
      <ProblemNote problem={problem} />
      <button className="btn-plain justify-self-start" disabled={isBusy || reason.trim() === ''}>
        Start outline access
      </button>
    </form>
  )
}
