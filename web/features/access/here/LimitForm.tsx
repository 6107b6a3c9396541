import { useState } from 'react'
import { endOfDay, startOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { NodeView } from '#contract/views/content.ts'
import { builtInLevels, levelActions } from '#core/levels/level.ts'
import type { Principal } from '#core/rules/principal.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { useHere } from '../../../api/use-here.ts'
import { Decision } from '../../../ui/Decision.tsx'
import { useLevelName } from '../../../ui/own-levels.ts'
import { Span } from '../../../ui/Span.tsx'
import { Tick } from '../../../ui/Tick.tsx'

interface Props {
  readonly node: Pick<NodeView, 'id' | 'name'>
  readonly who: Principal
  readonly onDone: () => void
}

const none: EditRequest[] = []

/** Caps what somebody may do at a place and below it, whatever is granted to them. */
export function LimitForm({ node, who, onDone }: Props) {
  const { workspace } = useHere()
  const [allows, setAllows] = useState<number>()
  const [sparesStewards, setSpares] = useState(true)
  const [from, setFrom] = useState('')
  const [through, setThrough] = useState('')
  const isGroup = !who.startsWith('person:') && who !== 'guests'
  const levelName = useLevelName()
  const level = allows === undefined ? '' : levelName(allows)
  const edit = {
    kind: 'limit.add',
    node: node.id,
    principal: who,
    allows: allows ?? 0,
    sparesStewards,
    from: from === '' ? null : startOfDay(from, workspace.timeZone),
    until: through === '' ? null : endOfDay(through, workspace.timeZone),
  } as const
  // A limit can take much away: what it allows is chosen, never preset.
  const decision = useDecision(
    allows === undefined ? none : [edit],
    `Limited to ${level} on ${node.name}.`,
    onDone,
  )
  return (
    <Decision
      label={allows === undefined ? 'Limit' : `Limit to ${level}`}
      isDrastic={allows === 0}
      isWaiting={allows === undefined}
      onLeave={onDone}
      {...decision}
    >
      <HighestLevel allows={allows} onAllows={setAllows} />
      {isGroup && (
        <Tick isOn={sparesStewards} onTick={setSpares}>
          Does not apply to stewards of this place
        </Tick>
      )}
      <Span from={from} through={through} onFrom={setFrom} onThrough={setThrough} />
    </Decision>
  )
}

interface HighestLevelProps {
  readonly allows: number | undefined
  readonly onAllows: (allows: number) => void
}

function HighestLevel({ allows, onAllows }: HighestLevelProps) {
  const { workspace } = useHere()
  return (
    <select
      className="choice"
      aria-label="Highest level"
      value={allows ?? ''}
      onChange={event => onAllows(Number(event.target.value))}
    >
      <option value="" disabled>
        Choose the highest level
      </option>
      <option value={0}>No access</option>
      {builtInLevels.slice(0, -1).map(name => (
        <option key={name} value={levelActions(name)}>
          {name}
        </option>
      ))}
      {workspace.ownLevels.map(own => (
        <option key={own.id} value={own.actions}>
          {own.name}
        </option>
      ))}
    </select>
  )
}
