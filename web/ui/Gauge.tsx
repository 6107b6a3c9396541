import type { ActionSet } from '#core/levels/action.ts'
import { gaugeOf, nameOfActions } from '#core/levels/level.ts'
import { useLevelName } from './own-levels.ts'

const step = 3
const width = 11
const height = 7 * step

/**
 * How much access, as an upright gauge of seven steps: filled where all that a step adds is held,
 * half where some is. Always beside the level's name, so it says nothing to screen readers.
 */
export function Gauge({ actions }: { readonly actions: number }) {
  const steps = gaugeOf(actions as ActionSet)
  const { step: highest } = nameOfActions(actions as ActionSet)
  const colour = `var(--level-${Math.max(highest, 1)})`
  return (
    <svg
      className="shrink-0"
      width={width + 2}
      height={height + 2}
      viewBox={`-1 -1 ${width + 2} ${height + 2}`}
      aria-hidden
    >
      {steps.map((filled, index) => {
        const y = height - (index + 1) * step
        if (filled === 'none') return null
        return (
          <rect
            key={index}
            x={0}
            y={y}
            width={filled === 'full' ? width : width / 2}
            height={step}
            fill={colour}
          />
        )
      })}
      {/* Notches: a cut a step in the right edge, longer in the middle, so that steps can be counted. */}
      {steps.slice(1).map((_, index) => (
        <line
          key={index}
          x1={width - (index === 3 ? 5 : 3)}
          x2={width}
          y1={height - (index + 1) * step}
          y2={height - (index + 1) * step}
          stroke="var(--color-base-100)"
          strokeWidth={1}
        />
      ))}
      <rect
        x={-0.5}
        y={-0.5}
        width={width + 1}
        height={height + 1}
        fill="none"
        stroke="currentColor"
        strokeOpacity={0.55}
      />
    </svg>
  )
}

/** The gauge with the level's name: the sign for "how much" everywhere. */
export function Level({ actions }: { readonly actions: number }) {
  const levelName = useLevelName()
  return (
    <span className="inline-flex items-center gap-2 align-middle whitespace-nowrap">
      <Gauge actions={actions} />
      {levelName(actions)}
    </span>
  )
}
