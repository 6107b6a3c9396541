import { Area, AreaChart, Line, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import type { SeatsView } from '#contract/views/roles.ts'
import { useDates } from '../../ui/dates.tsx'

const tick = { fill: 'var(--quiet)', fontSize: 13 }
const axis = { tick, stroke: 'var(--color-base-300)' }

/** Seats taken over the life of the workspace, below the line of those bought. */
export function SeatChart({ past }: Pick<SeatsView, 'past'>) {
  const inWords = useDates()
  const last = past.at(-1)
  const first = past[0]
  if (first === undefined || last === undefined || past.length < 2)
    return <p>There is only one day so far. The chart starts tomorrow.</p>
  const day = (at: number) => inWords(at, 'day')
  const summary = `From ${first.taken} used on ${day(first.at)} to ${last.taken} on ${day(last.at)}.`
  return (
    <figure>
      <div aria-hidden>
        <ResponsiveContainer width="100%" height={190}>
          <AreaChart
            data={[...past]}
            margin={{ top: 8, right: 8, bottom: 0, left: -20 }}
            accessibilityLayer={false}
          >
            <XAxis
              dataKey="at"
              type="number"
              scale="time"
              domain={['dataMin', 'dataMax']}
              tickFormatter={day}
              {...axis}
              minTickGap={48}
            />
            <YAxis allowDecimals={false} {...axis} />
            <Tooltip
              labelFormatter={at => day(Number(at))}
              contentStyle={{ background: 'var(--color-base-100)', borderColor: 'var(--color-base-content)' }}
              isAnimationActive={false}
            />
            <Area
              name="taken"
              dataKey="taken"
              type="stepAfter"
              stroke="var(--level-7)"
              fill="var(--level-2)"
              isAnimationActive={false}
            />
            <Line
              name="bought"
              dataKey="bought"
              type="stepAfter"
              stroke="var(--color-base-content)"
              strokeDasharray="5 4"
              dot={false}
              isAnimationActive={false}
            />
          </AreaChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="quiet text-sm">
        {summary} The dashed line shows the number of seats in the plan.
      </figcaption>
    </figure>
  )
}
