import { useState } from 'react'
import { builtInLevels, levelActions } from '#core/levels/level.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { counted } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Decision } from '../../../ui/Decision.tsx'
import { FilterWords } from '../../../ui/FilterWords.tsx'
import { Level } from '../../../ui/Gauge.tsx'
import { LevelChoice } from '../../../ui/LevelChoice.tsx'
import { type Act, acts, editsFor, type Row, type Wanted } from './many.ts'
import { DayField } from '../../../ui/DayField.tsx'

interface Props {
  readonly label: string
  readonly rows: readonly Row[]
}

/** Grants in a list: those that are ticked are raised, lowered, lengthened, limited or ended in one change set. */
export function ManyGrants({ label, rows }: Props) {
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set())
  const free = rows.filter(row => !row.isFixed)
  const chosen = free.filter(row => ticked.has(row.key))
  const tick = (key: string, isOn: boolean) => {
    const next = new Set(ticked)
    if (isOn) next.add(key)
    else next.delete(key)
    setTicked(next)
  }
  const isAll = free.length > 0 && chosen.length === free.length
  return (
    <>
      {free.length > 0 && (
        <label className="flex items-center gap-2 py-1 text-sm">
          <input
            type="checkbox"
            className="checkbox checkbox-sm border-base-content/60"
            checked={isAll}
            onChange={() => setTicked(new Set(isAll ? [] : free.map(row => row.key)))}
          />
          {chosen.length === 0 ? `Select all ${free.length}` : `${chosen.length} of ${free.length} selected`}
        </label>
      )}
      {chosen.length > 0 && <Changing rows={chosen} onDone={() => setTicked(new Set())} />}
      <ul aria-label={label}>
        {rows.map(row => (
          <Line key={row.key} row={row} isOn={ticked.has(row.key)} onTick={isOn => tick(row.key, isOn)} />
        ))}
      </ul>
    </>
  )
}

interface LineProps {
  readonly row: Row
  readonly isOn: boolean
  readonly onTick: (isOn: boolean) => void
}

function Line({ row, isOn, onTick }: LineProps) {
  const levels = [...new Set(row.grants.map(grant => grant.actions))].sort((a, b) => b - a)
  return (
    <li className="border-t border-base-300">
      <label className="grid cursor-pointer grid-cols-[1.25rem_minmax(0,1fr)_auto] items-start gap-2 py-1.5">
        {row.isFixed ? (
          <span />
        ) : (
          <input
            type="checkbox"
            className="checkbox checkbox-sm mt-0.5 border-base-content/60"
            checked={isOn}
            onChange={event => onTick(event.target.checked)}
          />
        )}
        <span className="min-w-0">
          <span className={`block truncate ${row.isFixed ? '' : 'font-semibold'}`}>{row.title}</span>
          <span className="quiet block text-sm">{row.note}</span>
        </span>
        <span className="grid w-28 justify-items-start">
          {levels.map(actions => (
            <Level
              key={actions}
              actions={actions}
              isLater={row.grants.every(grant => grant.actions !== actions || grant.isWaiting)}
            />
          ))}
        </span>
      </label>
    </li>
  )
}

const first: Wanted = {
  act: 'Level',
  gives: levelActions('Reader'),
  through: '',
  allows: levelActions('Reader'),
}

function Changing({ rows, onDone }: { readonly rows: readonly Row[]; readonly onDone: () => void }) {
  const { timeZone, ownLevels: own } = useHere().workspace
  const [wanted, setWanted] = useState<Wanted>(first)
  const grants = rows.flatMap(row => row.grants)
  const edits = editsFor(grants, wanted, { timeZone, own })
  return (
    <div className="bg-base-200">
      <div className="grid gap-3 p-3 pb-0">
        <FilterWords<Act>
          label="Change the selected grants"
          words={acts}
          chosen={wanted.act}
          onChoose={act => setWanted({ ...wanted, act })}
        />
        <Fields wanted={wanted} grants={grants} onWanted={setWanted} />
      </div>
      {edits.length === 0 ? (
        <p className="quiet p-3 text-sm">They already have this. Nothing would change.</p>
      ) : (
        <Applying edits={edits} act={wanted.act} onDone={onDone} />
      )}
    </div>
  )
}

interface FieldsProps {
  readonly wanted: Wanted
  readonly grants: Row['grants']
  readonly onWanted: (wanted: Wanted) => void
}

function Fields({ wanted, grants, onWanted }: FieldsProps) {
  const { ownLevels } = useHere().workspace
  const atMost = grants.reduce((held, grant) => held | grant.held, 0)
  switch (wanted.act) {
    case 'Level':
      return (
        <LevelChoice
          label="Level"
          value={wanted.gives}
          own={ownLevels}
          atMost={atMost}
          onChange={gives => onWanted({ ...wanted, gives })}
        />
      )
    case 'End':
      return (
        <DayField
          isQuiet
          label="Ends after"
          hint="Empty: does not end."
          value={wanted.through}
          onValue={through => onWanted({ ...wanted, through })}
        />
      )
    case 'Limit':
      return (
        <select
          className="choice"
          aria-label="Highest level"
          value={wanted.allows}
          onChange={event => onWanted({ ...wanted, allows: Number(event.target.value) })}
        >
          <option value={0}>No access</option>
          {builtInLevels.slice(0, -1).map(name => (
            <option key={name} value={levelActions(name)}>
              {name}
            </option>
          ))}
        </select>
      )
    case 'Remove':
      return null
  }
}

interface ApplyingProps {
  readonly edits: Parameters<typeof useDecision>[0]
  readonly act: Act
  readonly onDone: () => void
}

function Applying({ edits, act, onDone }: ApplyingProps) {
  const count = counted(
    edits.length,
    act === 'Limit' ? 'limit' : 'grant',
    act === 'Limit' ? 'limits' : 'grants',
  )
  const decision = useDecision(
    edits,
    `${count} ${act === 'Limit' ? 'added' : act === 'Remove' ? 'ended' : 'changed'}.`,
    onDone,
  )
  const word = act === 'Remove' ? 'End' : act === 'Limit' ? 'Add' : 'Change'
  return <Decision label={`${word} ${count}`} isDrastic={act === 'Remove'} onLeave={onDone} {...decision} />
}
