import type { WayView } from '#contract/views/explanation.ts'
import type { ActionSet } from '#core/levels/action.ts'
import { nameOfActions } from '#core/levels/level.ts'
import { useLevelName } from './own-levels.ts'

interface Props {
  readonly way: readonly WayView[]
  readonly label: string
}

const height = 40
const middle = height / 2
const widest = 21

/**
 * The way from the whole workspace down to a place, drawn as one band that is as wide as the level: a knot where
 * something is given, a bar where a limit caps it, a gap where inheritance is broken.
 */
export function Way({ way, label }: Props) {
  const levelName = useLevelName()
  return (
    <ol aria-label={label} className="mb-3">
      {way.map((step, index) => (
        <li key={index} className="grid grid-cols-[2.25rem_minmax(0,1fr)_auto] items-center gap-2">
          <Segment step={step} above={way[index - 1]?.actions ?? 0} />
          <span className="min-w-0 leading-tight">
            <span className="block truncate">{step.place?.name ?? 'A place above that you cannot see'}</span>
            <span className="quiet block text-sm">
              {index === 0 && isNothing(step) ? 'no grant' : wordsFor(step, levelName)}
            </span>
          </span>
          <span className="text-sm whitespace-nowrap">{levelName(step.actions)}</span>
        </li>
      ))}
    </ol>
  )
}

function wordsFor({ given, allows, isBroken }: WayView, levelName: (actions: number) => string): string {
  const parts = [
    ...(isBroken ? ['inheritance broken'] : []),
    ...(given === 0 ? [] : [`grant: ${levelName(given)}`]),
    ...(allows === null ? [] : [allows === 0 ? 'limit: no access' : `limit: ${levelName(allows)}`]),
  ]
  return parts.length === 0 ? 'inherited' : parts.join(', ')
}

const isNothing = ({ given, allows }: WayView) => given === 0 && allows === null

const stepOf = (actions: number) => nameOfActions(actions as ActionSet).step
const widthOf = (actions: number) => (stepOf(actions) / 7) * widest
const colourOf = (actions: number) => `var(--level-${Math.max(stepOf(actions), 1)})`

function Segment({ step, above }: { readonly step: WayView; readonly above: number }) {
  const centre = 16
  const upper = step.isBroken ? middle - 12 : middle
  return (
    <svg width="32" height={height} viewBox={`0 0 32 ${height}`} aria-hidden>
      <Band at={centre} from={0} to={upper} actions={above} />
      <Band at={centre} from={middle} to={height} actions={step.actions} />
      {step.actions === 0 && (
        <line
          x1={centre}
          x2={centre}
          y1={middle + 2}
          y2={height}
          stroke="currentColor"
          strokeOpacity="0.45"
          strokeDasharray="2 4"
        />
      )}
      {step.allows !== null && (
        <line x1="2" x2="30" y1={middle - 5} y2={middle - 5} stroke="var(--color-error)" strokeWidth="3" />
      )}
      {step.given !== 0 && (
        <path
          d={`M${centre} ${middle - 5}l5 5-5 5-5-5z`}
          fill="var(--color-base-100)"
          stroke="currentColor"
          strokeWidth="1.5"
        />
      )}
    </svg>
  )
}

interface BandProps {
  readonly at: number
  readonly from: number
  readonly to: number
  readonly actions: number
}

const Band = ({ at, from, to, actions }: BandProps) =>
  actions === 0 ? null : (
    <rect
      x={at - widthOf(actions) / 2}
      y={from}
      width={widthOf(actions)}
      height={to - from}
      fill={colourOf(actions)}
    />
  )
