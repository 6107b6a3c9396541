import { useState } from 'react'
import { useLooksQuery } from '../../api/roles.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { Time } from '../../ui/dates.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { ProblemNote } from '../../ui/ProblemNote.tsx'

/**
 * Whoever may check anyone's access asks about places that they do not see by looking at the outline, for an hour and
 * with a reason: only then an answer is about everything.
 */
export function Outlining() {
  const { slug, workspace } = useHere()
  const mayCheck = workspace.me.privileges.includes('check access')
  const { data: looks } = useLooksQuery(slug, { skip: !mayCheck })
  const open = looks?.looks.find(each => each.isOpen && each.through === null)
  const [word, setWord] = useState('')
  const { apply, problem, isBusy } = useChange(slug)
  if (!mayCheck)
    return (
      <p className="quiet text-sm">You are told of places where you give access yourself, and of your own.</p>
    )
  if (looks === undefined) return null
  if (open !== undefined)
    return (
      <p className="border-l-4 border-base-content pl-3 text-sm">
        You look at the outline until <Time at={open.until} />: answers are about all places but private
        folders. It stands in the history.
      </p>
    )
  const begin = () =>
    apply(
      [{ kind: 'look.begin', look: 'new:look', through: null, word }],
      'You look at the outline for an hour.',
    )
  return (
    <form
      className="grid gap-2 border-l-4 border-base-300 pl-3"
      onSubmit={onSubmit(async () => {
        await begin()
      })}
    >
      <p className="text-sm">
        Places that you do not see are left out. To ask about them too, look at the outline for an hour.
      </p>
      <input
        className="field"
        aria-label="Why you look at the outline"
        placeholder="Why: stands in the history"
        maxLength={500}
        value={word}
        onChange={event => setWord(event.target.value)}
      />
      <ProblemNote problem={problem} />
      <button className="btn-plain justify-self-start" disabled={isBusy || word.trim() === ''}>
        Ask about all places
      </button>
    </form>
  )
}
