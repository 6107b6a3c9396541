import { useState } from 'react'
import { endOfDay, startOfDay } from '#contract/dates.ts'
import type { NodeView } from '#contract/views.ts'
import { builtInLevels, levelActions } from '#core/levels/level.ts'
import type { Principal } from '#core/rules/principal.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Decision } from '../../ui/Decision.tsx'
import { useLevelName } from '../../ui/own-levels.ts'
import { Span } from '../../ui/Span.tsx'
import { Tick } from '../../ui/Tick.tsx'

interface Props {
  readonly node: Pick<NodeView, 'id' | 'name'>
  readonly who: Principal
  readonly onDone: () => void
}

/** Caps what somebody may do at a place and below it, whatever is granted to them. */
export function LimitForm({ node, who, onDone }: Props) {
  const { workspace } = useHere()
  const [allows, setAllows] = useState(0)
  const [sparesStewards, setSpares] = useState(true)
  const [from, setFrom] = useState('')
  const [through, setThrough] = useState('')
  const isGroup = !who.startsWith('person:') && who !== 'guests'
  const level = useLevelName()(allows)
  const edit = {
    kind: 'limit.add',
    node: node.id,
    principal: who,
    allows,
    sparesStewards,
    from: from === '' ? null : startOfDay(from, workspace.timeZone),
    until: through === '' ? null : endOfDay(through, workspace.timeZone),
  } as const
  const decision = useDecision([edit], `Limited to ${level} on ${node.name}.`, onDone)
  return (
    <Decision act={`Limit to ${level}`} onLeave={onDone} {...decision}>
      <select
        className="choice"
        aria-label="At most"
        value={allows}
        onChange={event => setAllows(Number(event.target.value))}
      >
        <option value={0}>No access at all</option>
        {builtInLevels.slice(0, -1).map(name => (
          <option key={name} value={levelActions(name)}>
            {name} at most
          </option>
        ))}
        {workspace.ownLevels.map(own => (
          <option key={own.id} value={own.actions}>
            {own.name} at most
          </option>
        ))}
      </select>
      {isGroup && (
        <Tick isOn={sparesStewards} onTick={setSpares}>
          Spare those who give and take access here
        </Tick>
      )}
      <Span from={from} through={through} onFrom={setFrom} onThrough={setThrough} />
    </Decision>
  )
}
