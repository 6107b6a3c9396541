import { builtInLevels, levelActions } from '#core/levels/level.ts'

interface Props {
  readonly label: string
  readonly value: number
  /** What the author holds: nobody gives more than that. */
  readonly atMost: number
  readonly onChange: (actions: number) => void
}

/** One of the seven levels, as far as one holds it oneself. A set that is no level stays as it is until changed. */
export function LevelChoice({ label, value, atMost, onChange }: Props) {
  const levels = builtInLevels.map(name => ({ name, actions: levelActions(name) }))
  const isLevel = levels.some(level => Number(level.actions) === value)
  return (
    <select
      className="choice"
      aria-label={label}
      value={value}
      onChange={event => onChange(Number(event.target.value))}
    >
      {!isLevel && <option value={value}>As it is</option>}
      {levels.map(level => (
        <option key={level.name} value={level.actions} disabled={(level.actions & ~atMost) !== 0}>
          {level.name}
        </option>
      ))}
    </select>
  )
}
