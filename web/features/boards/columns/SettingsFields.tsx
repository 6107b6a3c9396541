import type { ReactNode } from 'react'
import type { ColumnSettings } from '#contract/boards.ts'
import type { KindName } from '#core/boards/kind.ts'
import { footChoices, type NumberSettings } from '#core/boards/kinds/number.ts'
import { type Mark, marks, type State, type StateSettings } from '#core/boards/kinds/state.ts'
import type { TagSettings } from '#core/boards/kinds/tags.ts'
import { TextField } from '../../../ui/TextField.tsx'
import { Tick } from '../../../ui/Tick.tsx'
import { StateMark } from '../StateMark.tsx'

interface Props {
  readonly kind: KindName
  readonly settings: ColumnSettings
  readonly onSettings: (settings: ColumnSettings) => void
}

/** What a kind of column lets one settle. */
export function SettingsFields({ kind, settings, onSettings }: Props) {
  const put = (next: object) => onSettings(next)
  switch (kind) {
    case 'number':
      return <NumberFields settings={settings as NumberSettings} onSettings={put} />
    case 'serial number':
      return (
        <TextField
          label="Prefix"
          maxLength={20}
          placeholder="P-"
          value={(settings as { prefix: string }).prefix}
          onValue={prefix => put({ prefix })}
        />
      )
    case 'state':
      return <StateFields settings={settings as unknown as StateSettings} onSettings={put} />
    case 'tags':
      return <TagFields settings={settings as unknown as TagSettings} onSettings={put} />
    case 'person':
      return (
        <Tick isOn={(settings as { isSeveral: boolean }).isSeveral} onTick={isSeveral => put({ isSeveral })}>
          Several people in one cell
        </Tick>
      )
    case 'date':
      return (
        <Tick isOn={(settings as { withTime: boolean }).withTime} onTick={withTime => put({ withTime })}>
          With the time of day
        </Tick>
      )
    default:
      return null
  }
}

interface FieldsOf<S> {
  readonly settings: S
  readonly onSettings: (settings: object) => void
}

const NumberFields = ({ settings, onSettings }: FieldsOf<NumberSettings>) => (
  <div className="grid grid-cols-3 gap-2">
    <label>
      <span className="label-line">Decimals</span>
      <select
        className="choice"
        value={settings.places}
        onChange={event => onSettings({ ...settings, places: Number(event.target.value) })}
      >
        {[0, 1, 2, 3, 4, 5, 6].map(each => (
          <option key={each}>{each}</option>
        ))}
      </select>
    </label>
    <TextField
      label="Unit"
      maxLength={20}
      value={settings.unit}
      onValue={unit => onSettings({ ...settings, unit })}
    />
    <label>
      <span className="label-line">In the foot</span>
      <select
        className="choice"
        value={settings.foot}
        onChange={event => onSettings({ ...settings, foot: event.target.value })}
      >
        {footChoices.map(each => (
          <option key={each}>{each}</option>
        ))}
      </select>
    </label>
  </div>
)

/** Short, and never used again in this column: what is written names it. */
const freshId = (used: readonly { readonly id: string }[], letter: string): string => {
  const most = Math.max(0, ...used.map(({ id }) => Number(/\d+$/.exec(id)?.[0] ?? 0)))
  return `${letter}${Math.max(most + 1, Date.now() % 1_000_000)}`
}

const markNames: Readonly<Record<Mark, string>> = {
  ring: 'ring',
  half: 'half disc',
  disc: 'disc',
  dotted: 'dotted ring',
  triangle: 'triangle',
  wedge: 'wedge',
  diamond: 'diamond',
  square: 'square',
  cross: 'cross',
  bars: 'bars',
  steps: 'steps',
  wave: 'wave',
}

function StateFields({ settings: { states }, onSettings }: FieldsOf<StateSettings>) {
  const put = (next: readonly State[]) => onSettings({ states: next })
  const change = (id: string, part: Partial<State>) =>
    put(states.map(each => (each.id === id ? { ...each, ...part } : each)))
  return (
    <fieldset className="grid gap-1.5">
      <legend className="label-line">States, in their order</legend>
      {states.map((state, index) => (
        <OneState key={state.id} state={state} index={index} onChange={part => change(state.id, part)}>
          <Order items={states} index={index} name={state.name} onOrder={put} />
        </OneState>
      ))}
      <button
        type="button"
        className="btn-inline justify-self-start text-sm"
        onClick={() =>
          put([
            ...states,
            {
              id: freshId(states, 's'),
              name: `State ${states.length + 1}`,
              mark: marks[states.length % marks.length] ?? 'ring',
              isFinished: false,
            },
          ])
        }
      >
        Add state
      </button>
    </fieldset>
  )
}

interface OneStateProps {
  readonly state: State
  readonly index: number
  readonly onChange: (part: Partial<State>) => void
  readonly children: ReactNode
}

const OneState = ({ state, index, onChange, children }: OneStateProps) => (
  <div className="flex items-center gap-1.5">
    <StateMark mark={state.mark} isFinished={state.isFinished} />
    <select
      className="choice w-24"
      aria-label={`Mark of ${state.name || 'the state'}`}
      value={state.mark}
      onChange={event => onChange({ mark: event.target.value as Mark })}
    >
      {marks.map(mark => (
        <option key={mark} value={mark}>
          {markNames[mark]}
        </option>
      ))}
    </select>
    <input
      className="field min-w-0"
      aria-label={`State ${index + 1}`}
      maxLength={100}
      value={state.name}
      onChange={event => onChange({ name: event.target.value })}
    />
    <label className="flex items-center gap-1 text-sm" title="Counts as finished">
      <input
        type="checkbox"
        className="checkbox checkbox-xs border-base-content/60"
        checked={state.isFinished}
        onChange={event => onChange({ isFinished: event.target.checked })}
      />
      done
    </label>
    {children}
  </div>
)

function TagFields({ settings: { tags }, onSettings }: FieldsOf<TagSettings>) {
  const put = (next: TagSettings['tags']) => onSettings({ tags: next })
  return (
    <fieldset className="grid gap-1.5">
      <legend className="label-line">Tags, in their order</legend>
      {tags.map((tag, index) => (
        <div key={tag.id} className="flex items-center gap-1.5">
          <input
            className="field min-w-0"
            aria-label={`Tag ${index + 1}`}
            maxLength={100}
            value={tag.name}
            onChange={event =>
              put(tags.map(each => (each.id === tag.id ? { ...each, name: event.target.value } : each)))
            }
          />
          <Order items={tags} index={index} name={tag.name} onOrder={put} />
        </div>
      ))}
      <button
        type="button"
        className="btn-inline justify-self-start text-sm"
        onClick={() => put([...tags, { id: freshId(tags, 't'), name: `Tag ${tags.length + 1}` }])}
      >
        Add tag
      </button>
    </fieldset>
  )
}

interface OrderProps<Item> {
  readonly items: readonly Item[]
  readonly index: number
  readonly name: string
  readonly onOrder: (items: readonly Item[]) => void
}

function Order<Item>({ items, index, name, onOrder }: OrderProps<Item>) {
  const up = () => {
    const next = [...items]
    const [moved] = next.splice(index, 1)
    if (moved !== undefined) next.splice(index - 1, 0, moved)
    onOrder(next)
  }
  return (
    <>
      <button
        type="button"
        className="btn-inline"
        aria-label={`Move ${name} up`}
        disabled={index === 0}
        onClick={up}
      >
        ↑
      </button>
      <button
        type="button"
        className="btn-inline text-error"
        aria-label={`Remove ${name}`}
        onClick={() => onOrder(items.filter((_, nth) => nth !== index))}
      >
        ×
      </button>
    </>
  )
}
