import { useId } from 'react'
import type { ActionSet } from '#core/levels/action.ts'
import { gaugeOf, nameOfActions } from '#core/levels/level.ts'
import { useLevelName } from './own-levels.ts'

interface GaugeProps {
  readonly actions: number
  /** It counts from a later instant on, and is not there now. */
  readonly isLater?: boolean
}

const step = 3
const width = 11
const height = 7 * step

/**
 * How much access, as an upright gauge of seven steps: filled where all that a step adds is held,
 * half where some is; hatched where it counts only later. Always beside the level's name, so it says nothing to
 * screen readers.
 */
export function Gauge({ actions, isLater = false }: GaugeProps) {
  const hatched = useId()
  const steps = gaugeOf(actions as ActionSet)
  const { step: highest } = nameOfActions(actions as ActionSet)
  return (
    <svg
      className="shrink-0"
      width={width + 2}
      height={height + 2}
      viewBox={`-1 -1 ${width + 2} ${height + 2}`}
      aria-hidden
    >
      {isLater && (
        <pattern
          id={hatched}
          width={4}
          height={4}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width={1.6} height={4} fill={`var(--level-${Math.max(highest, 1)})`} />
        </pattern>
      )}
      <path
        d={steps.map(filledAt).join('')}
        fill={isLater ? `url(#${hatched})` : `var(--level-${Math.max(highest, 1)})`}
      />
      <path d={notches} stroke="var(--color-base-100)" strokeWidth={1} />
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

/** Hundreds of gauges stand in a tree: each is a few lines, not a shape for every step. */
function filledAt(filled: ReturnType<typeof gaugeOf>[number], index: number): string {
  if (filled === 'none') return ''
  const bulk = filled === 'full' ? width : width / 2
  return `M0 ${height - (index + 1) * step}h${bulk}v${step}h${-bulk}z`
}

/** A cut a step in the right edge, longer in the middle, so that steps can be counted. */
const notches = [1, 2, 3, 4, 5, 6]
  .map(cut => `M${width - (cut === 4 ? 5 : 3)} ${height - cut * step}H${width}`)
  .join('')

/** The gauge with the level's name: the sign for "how much" everywhere. */
export function Level({ actions, isLater = false }: GaugeProps) {
  const levelName = useLevelName()
  return (
    <span className="inline-flex items-center gap-2 align-middle whitespace-nowrap">
      <Gauge actions={actions} isLater={isLater} />
      <span className={isLater ? 'quiet' : ''}>
        {levelName(actions)}
        {isLater && <span className="sr-only"> later</span>}
      </span>
    </span>
  )
}
