import { useContext, useEffect, useState } from 'react'
import type { ColumnView, RowsView, RowView } from '#contract/views/boards.ts'
import { isSame } from '#core/base/same.ts'
import { calendarDay, dayLength, writtenDay } from '#core/boards/days.ts'
import type { CellValue } from '#core/boards/kind.ts'
import { type Conditions, viewParameters, withAlso } from '#core/boards/view.ts'
import { useBoardRowsQuery } from '../../../api/boards.ts'
import { type OpenBoard, useOpenBoard } from '../board-context.ts'
import { Unwritten } from '../Unwritten.tsx'
import { useFollowed } from '../use-followed.ts'
import { conditionsIn } from '../use-view.ts'
import { PendingCells } from '../use-writing.ts'
import { valueIn } from '../writing.ts'
import { CalendarHead, calendarColumns, monthName } from './CalendarHead.tsx'
import { monthWeeks, spanOf, weekBegins } from './days.ts'
import { NewRowOnDay } from './NewRowOnDay.tsx'
import { type CalendarPlace, useCalendarPlace } from './use-calendar-place.ts'
import { Week } from './Week.tsx'

const needs = 'A calendar needs a column of dates or periods. This board has none that you see.'
const names = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']

export interface Bar {
  readonly item: RowView
  readonly from: number
  readonly through: number
}

/** The same rows in a month or a week, by a column of dates or periods; bars are moved and stretched. */
export function Calendar({ onFound }: { readonly onFound: (found: RowsView | undefined) => void }) {
  const board = useOpenBoard()
  const column = calendarColumn(board)
  if (column === undefined) return <p className="quiet py-4">{needs}</p>
  return <OfColumn column={column} onFound={onFound} />
}

interface OfColumnProps {
  readonly column: ColumnView
  readonly onFound: (found: RowsView | undefined) => void
}

function OfColumn({ column, onFound }: OfColumnProps) {
  const board = useOpenBoard()
  const { slug, node, view, info, writing, mayAdd } = board
  const [place, setPlace] = useCalendarPlace(info.today)
  const { weeks, days } = drawn(place)
  const { data } = useBoardRowsQuery({
    slug,
    id: node.id,
    ...conditionsIn(viewParameters({ ...view.view, where: asked(board, column, days) })),
    group: 'none',
    from: '0',
    count: '500',
  })
  useEffect(() => onFound(data), [data, onFound])
  const { bars, followed, setDragged, put } = useBars(column, data?.rows ?? [])
  const [newOn, setNewOn] = useState<number>()
  const mayMake = mayAdd && column.isMine
  const step = (bar: Bar) => {
    followed.follow(bar.item.id)
    put(bar)
    // Whoever moves it goes along.
    if (bar.from > days.through || bar.through < days.from) setPlace({ ...place, day: bar.from })
  }
  return (
    <>
      <CalendarHead
        by={column.id}
        place={place}
        onPlace={setPlace}
        onNew={mayMake ? () => setNewOn(place.day) : undefined}
      />
      {newOn !== undefined && <NewRowOnDay column={column} day={newOn} onDay={setNewOn} />}
      <Undrawn found={data} />
      <Unwritten writing={writing} />
      <div
        className="flex min-h-0 flex-1 flex-col overflow-auto pb-3"
        role="group"
        aria-label={monthName(place.day)}
      >
        <DayNames />
        {weeks.map(week => (
          <Week
            key={week}
            week={week}
            month={place.isMonth ? calendarDay(place.day).month : undefined}
            today={info.today}
            bars={bars}
            mayMove={row => row.mayEdit && column.isMine}
            isPeriod={column.kind === 'period'}
            followed={followed}
            onDrag={setDragged}
            onPut={put}
            onStep={step}
            onNew={mayMake ? setNewOn : undefined}
          />
        ))}
      </div>
    </>
  )
}

function drawn({ day, isMonth }: CalendarPlace): { readonly weeks: readonly number[]; readonly days: Days } {
  const weeks = isMonth ? monthWeeks(day) : [weekBegins(day)]
  return { weeks, days: { from: weeks[0] ?? 0, through: (weeks.at(-1) ?? 0) + 6 } }
}

/** The bars as they are drawn: where they are dragged to, and where they were just put. */
function useBars({ id: by }: ColumnView, rows: readonly RowView[]) {
  const board = useOpenBoard()
  const pending = useContext(PendingCells)
  const followed = useFollowed()
  const [dragged, setDragged] = useState<Bar>()
  const valueOf = (item: RowView) => pending.get(item.id)?.get(by) ?? valueIn(item, by)
  const bars = rows.flatMap((item): Bar[] => {
    if (item.id === dragged?.item.id) return [dragged]
    const span = spanOf(valueOf(item), board.usage.localOf)
    return span === undefined ? [] : [{ item, from: span[0], through: span[1] }]
  })
  const put = ({ item, ...days }: Bar) => {
    const before = valueOf(item)
    const value = movedValue(before, { ...days, board })
    if (!isSame(value, before))
      void board.writing.write([{ row: item.id, column: by, value, before, seen: item.version }])
  }
  return { bars, followed, setDragged, put }
}

/** So many bars are drawn at most: more of them would be no picture. */
const Undrawn = ({ found }: { readonly found: RowsView | undefined }) =>
  found !== undefined &&
  found.rows.length < found.count && (
    <p role="status" className="quiet pb-2 text-sm">
      {found.rows.length} of {found.count.toLocaleString('en')} rows are drawn. A condition brings the others
      into sight.
    </p>
  )

const DayNames = () => (
  <div
    aria-hidden
    className="quiet sticky top-0 z-10 grid grid-cols-7 border-b border-base-content bg-base-100 text-sm"
  >
    {names.map(name => (
      <span key={name} className="px-1.5 py-0.5">
        {name}
      </span>
    ))}
  </div>
)

const calendarColumn = (board: OpenBoard): ColumnView | undefined => {
  const columns = calendarColumns(board)
  return (
    columns.find(({ id }) => id === board.view.view.by) ??
    columns.find(({ kind }) => kind === 'period') ??
    columns[0]
  )
}

interface Days {
  readonly from: number
  readonly through: number
}

/** The view's own conditions, and that a row lies within what is drawn. */
function asked({ view }: OpenBoard, { id, kind }: ColumnView, { from, through }: Days): Conditions {
  const word = kind === 'period' ? 'touches' : 'between'
  return withAlso(view.view.where, { column: id, word, given: [writtenDay(from), writtenDay(through)] })
}

interface Moved extends Days {
  readonly board: OpenBoard
}

/** The same value on other days: a time of day stays. */
function movedValue(before: CellValue, { from, through, board: { usage } }: Moved): CellValue {
  if (typeof before === 'number') {
    const local = usage.localOf(before)
    return usage.instantOf(from * dayLength + (local - Math.floor(local / dayLength) * dayLength))
  }
  return Array.isArray(before) ? [writtenDay(from), writtenDay(through)] : writtenDay(from)
}
