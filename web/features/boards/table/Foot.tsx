import { memo } from 'react'
import type { ColumnView } from '#contract/views/boards.ts'
import { dayLength } from '#core/boards/days.ts'
import type { Totals } from '#core/boards/kind.ts'
import type { NumberSettings } from '#core/boards/kinds/number.ts'
import type { StateSettings } from '#core/boards/kinds/state.ts'
import { counted } from '#core/words/english.ts'
import { useBoardTotalsQuery } from '../../../api/boards.ts'
import { CalendarDay, Day } from '../../../ui/dates.tsx'
import { cssWidth, useOpenBoard } from '../board-context.ts'
import { isRight } from '../cells/CellShown.tsx'
import { groupedNumber } from '../cells/number-words.ts'
import { conditionsIn } from '../use-view.ts'

/** What all rows of the view come to, column by column. */
export const Foot = memo(function Foot({ count }: { readonly count: number }) {
  const { slug, node, view, shown } = useOpenBoard()
  const { data } = useBoardTotalsQuery({ slug, id: node.id, ...conditionsIn(view.parameters) })
  return (
    <div role="rowgroup" className="sticky bottom-0 z-10 border-t border-base-content/40 bg-base-100">
      <div role="row" className="quiet flex min-h-8 items-center text-sm leading-tight">
        {shown.map(({ id, column, width }) => (
          <div
            key={id}
            role="gridcell"
            className={`shrink-0 px-2 wrap-anywhere ${column === undefined ? 'sticky left-0 z-[1] bg-base-100' : ''} ${isRight(column?.kind) ? 'text-right' : ''}`}
            style={{ width: cssWidth({ column, width }) }}
          >
            {column === undefined ? (
              counted(count, 'row', 'rows')
            ) : (
              <Total column={column} total={data?.totals[id] as Totals | undefined} />
            )}
          </div>
        ))}
      </div>
    </div>
  )
})

interface TotalProps {
  readonly column: ColumnView
  readonly total: Totals | undefined
}

function Total({ column, total }: TotalProps) {
  if (total === undefined || total.filled === 0) return null
  switch (column.kind) {
    case 'number':
      return <NumberTotal settings={column.settings as NumberSettings} total={total} />
    case 'state':
      return <StateBar settings={column.settings as unknown as StateSettings} total={total} />
    case 'person':
      return counted(total.different ?? 0, 'person', 'people')
    case 'place':
      return counted(total.different ?? 0, 'place', 'places')
    case 'date':
    case 'period':
      return <Range column={column} total={total} />
    case 'checkbox':
      return `${total.filled} yes`
    case 'serial number':
    case 'created':
    case 'updated':
      return null
    default:
      return `${total.filled} filled`
  }
}

const signs = { sum: 'Σ', mean: 'ø', least: 'min', greatest: 'max' } as const

function NumberTotal({
  settings: { places, foot },
  total,
}: {
  readonly settings: NumberSettings
  readonly total: Totals
}) {
  const { usage } = useOpenBoard()
  const of = (value: number | undefined, more = 0) => groupedNumber(value ?? 0, places + more, usage)
  const all = `sum ${of(total.sum)} · mean ${of(total.mean, places === 0 ? 1 : 0)} · least ${of(total.least)} · greatest ${of(total.greatest)}`
  return (
    <span title={all}>
      <span aria-hidden>{signs[foot]} </span>
      <span className="sr-only">{foot} </span>
      <span className="text-base-content">{of(total[foot], foot === 'mean' && places === 0 ? 1 : 0)}</span>
    </span>
  )
}

const shades = [
  'bg-base-content',
  'bg-base-content/60',
  'bg-warning',
  'bg-primary',
  'bg-base-content/30',
  'bg-error',
]

/** How many rows have each state, as lengths of a bar; in words for whoever hears or points at it. */
function StateBar({
  settings: { states },
  total,
}: {
  readonly settings: StateSettings
  readonly total: Totals
}) {
  const counts = total.options ?? []
  const said = counts
    .map(([id, count]) => `${states.find(each => each.id === id)?.name ?? 'other'} ${count}`)
    .join(', ')
  return (
    <span role="img" aria-label={said} title={said} className="flex h-1.5 w-full max-w-28 gap-px">
      {counts.map(([id, count], index) => (
        <span key={id} className={shades[index % shades.length]} style={{ flexGrow: count }} />
      ))}
    </span>
  )
}

function Range({ column, total: { least, greatest } }: TotalProps & { readonly total: Totals }) {
  const { info } = useOpenBoard()
  if (least === undefined || greatest === undefined) return null
  const isTimed = column.kind === 'date' && (column.settings as { withTime?: boolean }).withTime === true
  const day = (value: number) =>
    isTimed ? <Day at={value} timeZone={info.timeZone} /> : <CalendarDay at={value * dayLength} />
  return (
    <>
      {day(least)}
      {least !== greatest && (
        <>
          {' – '}
          {day(greatest)}
        </>
      )}
    </>
  )
}
