import type { WorkspaceView } from '#contract/views/workspace.ts'
import { builtInLevels, levelActions, nameOfActions } from '#core/levels/level.ts'
import type { ActionSet } from '#core/levels/action.ts'

/** What is given: a set of actions, or a level of the workspace's own by its id. */
export type Given = number | string

type OwnLevels = WorkspaceView['ownLevels']

interface Props {
  readonly label: string
  readonly value: Given
  readonly own: OwnLevels
  /** What the author holds: nobody gives more than that. */
  readonly atMost: number
  readonly onChange: (given: Given) => void
}

/** One of the seven levels or of the workspace's own, as far as one holds it oneself. A set that is no level stays as it is until changed. */
export function LevelChoice({ label, value, own, atMost, onChange }: Props) {
  const levels = builtInLevels.map(name => ({ name, actions: levelActions(name) }))
  const isLevel = typeof value === 'string' || levels.some(level => Number(level.actions) === value)
  const isBeyond = (actions: number) => (actions & ~atMost) !== 0
  return (
    <select
      className="choice"
      aria-label={label}
      value={value}
      onChange={({ target }) => onChange(/^\d+$/.test(target.value) ? Number(target.value) : target.value)}
    >
      {!isLevel && <option value={value}>As it is</option>}
      {levels.map(level => (
        <option key={level.name} value={level.actions} disabled={isBeyond(level.actions)}>
          {level.name}
        </option>
      ))}
      {own.length > 0 && (
        <optgroup label="Own levels">
          {own.map(level => (
            <option key={level.id} value={level.id} disabled={isBeyond(level.actions)}>
              {level.name}
            </option>
          ))}
        </optgroup>
      )}
    </select>
  )
}

export const nameOfGiven = (given: Given, own: OwnLevels): string =>
  typeof given === 'number'
    ? nameOfActions(given as ActionSet).name
    : (own.find(level => level.id === given)?.name ?? 'a level')
