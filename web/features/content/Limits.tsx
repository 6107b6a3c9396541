import { useState } from 'react'
import { endOfDay } from '#contract/dates.ts'
import type { AccessView, LimitView, NodeView } from '#contract/views.ts'
import { builtInLevels, levelActions, nameOfActions } from '#core/levels/level.ts'
import type { ActionSet } from '#core/levels/action.ts'
import type { Principal } from '#core/rules/principal.ts'
import { usePeopleNamesQuery, useTeamsQuery } from '../../api/api.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Decision } from '../../ui/Decision.tsx'
import { Through } from '../../ui/dates.tsx'
import { Level } from '../../ui/Gauge.tsx'
import { TextField } from '../../ui/TextField.tsx'

interface Props {
  readonly access: Extract<AccessView, { detail: 'all' }>
  readonly node: NodeView
}

/** The caps that count here, set here or above, and the form that sets one. */
export function Limits({ access, node }: Props) {
  const [isOpen, setOpen] = useState(false)
  return (
    <section aria-label="Limits" className="mt-4 border-t border-base-content pt-2">
      <div className="flex items-baseline justify-between gap-2">
        <span>{access.limits.length === 0 ? 'Nobody is limited here.' : <strong>Limits</strong>}</span>
        {!isOpen && (
          <button type="button" className="act shrink-0 text-sm" onClick={() => setOpen(true)}>
            Limit somebody here
          </button>
        )}
      </div>
      {isOpen && <NewLimit node={node} onDone={() => setOpen(false)} />}
      <ul>
        {access.limits.map(limit => (
          <Limited key={limit.id} limit={limit} />
        ))}
      </ul>
    </section>
  )
}

function Limited({ limit }: { readonly limit: LimitView }) {
  const { workspace } = useHere()
  const [isLifting, setLifting] = useState(false)
  const isGroup = limit.kind !== 'member' && limit.kind !== 'guest'
  return (
    <li className="border-t border-base-300 py-1.5">
      <div className="grid grid-cols-[minmax(0,1fr)_7.5rem_auto] items-start gap-2">
        <span className="min-w-0">
          <span className="block truncate font-semibold">{limit.name}</span>
          <span className="quiet block text-sm">
            {limit.isHere ? `limited by ${limit.by}` : `from ${limit.at?.name ?? 'a place above'}`}
            {isGroup && limit.principal !== 'guests' && limit.sparesStewards && ' · spares stewards'}
            {limit.until !== null && (
              <>
                {' · '}
                <Through until={limit.until} timeZone={workspace.timeZone} />
              </>
            )}
          </span>
        </span>
        <Level actions={limit.allows} />
        {limit.isHere && (
          <button
            type="button"
            className="act text-sm"
            aria-label={`Lift the limit for ${limit.name}`}
            onClick={() => setLifting(true)}
          >
            Lift
          </button>
        )}
      </div>
      {isLifting && <Lifting limit={limit} onDone={() => setLifting(false)} />}
    </li>
  )
}

function Lifting({ limit, onDone }: { readonly limit: LimitView; readonly onDone: () => void }) {
  const edits = [{ kind: 'limit.end', limit: limit.id } as const]
  const decision = useDecision(edits, `The limit for ${limit.name} is lifted.`, onDone)
  return <Decision act="Lift the limit" onLeave={onDone} {...decision} />
}

const groups: readonly { readonly principal: Principal; readonly name: string }[] = [
  { principal: 'guests', name: 'All guests' },
  { principal: 'everyone', name: 'All members' },
  { principal: 'anyone', name: 'Members and guests' },
]

function NewLimit({ node, onDone }: { readonly node: NodeView; readonly onDone: () => void }) {
  const { workspace } = useHere()
  const [who, setWho] = useState<Principal>('guests')
  const [allows, setAllows] = useState(0)
  const [sparesStewards, setSpares] = useState(true)
  const [through, setThrough] = useState('')
  const until = through === '' ? null : endOfDay(through, workspace.timeZone)
  const level = nameOfActions(allows as ActionSet).name
  const edit = {
    kind: 'limit.add',
    node: node.id,
    principal: who,
    allows,
    sparesStewards,
    from: null,
    until,
  } as const
  const decision = useDecision([edit], `Limited to ${level} on ${node.name}.`, onDone)
  return (
    <Decision act={`Limit to ${level}`} onLeave={onDone} {...decision}>
      <WhoChoice who={who} onWho={setWho} />
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
      </select>
      {!who.startsWith('person:') && who !== 'guests' && (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm border-base-content/60"
            checked={sparesStewards}
            onChange={event => setSpares(event.target.checked)}
          />
          Spare those who give and take access here
        </label>
      )}
      <TextField
        label="Through"
        type="date"
        hint="Leave empty for no end."
        value={through}
        onValue={setThrough}
      />
    </Decision>
  )
}

function WhoChoice({ who, onWho }: { readonly who: Principal; readonly onWho: (who: Principal) => void }) {
  const { slug } = useHere()
  const { data: people = [] } = usePeopleNamesQuery(slug)
  const { data: teams = [] } = useTeamsQuery(slug)
  return (
    <select
      className="choice"
      aria-label="Whom to limit"
      value={who}
      onChange={event => onWho(event.target.value as Principal)}
    >
      {groups.map(group => (
        <option key={group.principal} value={group.principal}>
          {group.name}
        </option>
      ))}
      <optgroup label="Teams">
        {teams.map(team => (
          <option key={team.id} value={`team:${team.id}`}>
            {team.name}
          </option>
        ))}
      </optgroup>
      <optgroup label="People">
        {people.map(person => (
          <option key={person.id} value={`person:${person.id}`}>
            {person.name}
          </option>
        ))}
      </optgroup>
    </select>
  )
}
