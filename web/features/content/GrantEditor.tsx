import { useState } from 'react'
import { dayOf, endOfDay } from '#contract/dates.ts'
import type { GrantView, NodeView } from '#contract/views.ts'
import { type ActionSet, intersect } from '#core/levels/action.ts'
import { levelActions, nameOfActions } from '#core/levels/level.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { LevelChoice } from '../../ui/LevelChoice.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'

interface Props {
  readonly grant: GrantView
  readonly node: NodeView
  readonly onDone: () => void
}

/** Raise, lower, lengthen, shorten or end what is given here. */
export function GrantEditor({ grant, node, onDone }: Props) {
  const { slug, workspace } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const [actions, setActions] = useState(grant.actions)
  const end = grant.until === null ? '' : dayOf(grant.until - 1, workspace.timeZone)
  const [through, setThrough] = useState(end)
  const until = through === '' ? null : through === end ? grant.until : endOfDay(through, workspace.timeZone)
  const isSame = actions === grant.actions && through === end
  const level = nameOfActions(actions as ActionSet).name
  const save = async () => {
    const edit = { kind: 'grant.change', grant: grant.id, gives: actions, until } as const
    if ((await apply([edit], `${grant.name} has ${level} on ${node.name} now.`)) !== undefined) onDone()
  }
  const stop = async () => {
    const done = await apply(
      [{ kind: 'grant.end', grant: grant.id }],
      `What ${grant.name} had here has ended.`,
    )
    if (done !== undefined) onDone()
  }
  return (
    <div className="mt-2 grid gap-2 bg-base-200 p-2">
      <div className="grid grid-cols-2 gap-2">
        <LevelChoice
          label={`Level of ${grant.name}`}
          value={actions}
          atMost={atMostFor(grant.kind, node.actions)}
          onChange={setActions}
        />
        <input
          type="date"
          className="field"
          aria-label={`Last day of ${grant.name}`}
          value={through}
          onChange={event => setThrough(event.target.value)}
        />
      </div>
      <ProblemNote problem={problem} />
      <div className="flex justify-between gap-2">
        <button type="button" className="btn-act" disabled={isBusy || isSame} onClick={() => void save()}>
          {actions === grant.actions ? 'Change the end' : `Make it ${level}`}
        </button>
        <button type="button" className="btn-plain" disabled={isBusy} onClick={() => void stop()}>
          End it now
        </button>
      </div>
    </div>
  )
}

/** Nobody gives more than they hold, and guests hold no stewardship. */
export const atMostFor = (kind: GrantView['kind'], held: number): number =>
  kind === 'guest' ? intersect(held as ActionSet, levelActions('Curator')) : held
