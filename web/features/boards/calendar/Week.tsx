import type { KeyboardEvent, PointerEvent } from 'react'
import type { RowView } from '#contract/views/boards.ts'
import { calendarDay, writtenDay } from '#core/boards/days.ts'
import { beginDrag, under } from '../../../ui/drag.ts'
import { useOpenBoard } from '../board-context.ts'
import type { Followed } from '../use-followed.ts'
import type { Bar } from './Calendar.tsx'
import { type Placed, placedIn } from './days.ts'

interface Props {
  readonly week: number
  /** Days of other months are quieter. */
  readonly month: number | undefined
  readonly today: number
  readonly bars: readonly Bar[]
  readonly isPeriod: boolean
  readonly mayMove: (row: RowView) => boolean
  readonly followed: Followed
  /** Where a bar would be that is dragged; nothing when it is let go of. */
  readonly onDrag: (bar: Bar | undefined) => void
  readonly onPut: (bar: Bar) => void
  /** The same by keys. */
  readonly onStep: (bar: Bar) => void
  /** Begins a row on a day; nothing where none can be added. */
  readonly onNew: ((day: number) => void) | undefined
}

const lineHeight = 24
const headHeight = 24

/** Seven days, with a bar for each row that touches them. */
export function Week({ week, month, today, bars, mayMove, followed, onNew, ...of }: Props) {
  const placed = placedIn(week, bars)
  const lines = Math.max(2, ...placed.map(each => each.line + 1))
  return (
    <div
      className="relative grid shrink-0 grow grid-cols-7 border-b border-base-300"
      style={{ minHeight: headHeight + lines * lineHeight + 6 }}
    >
      {Array.from({ length: 7 }, (_, nth) => week + nth).map(day => (
        <Day
          key={day}
          day={day}
          isToday={day === today}
          isOther={month !== undefined && calendarDay(day).month !== month}
          onNew={onNew}
        />
      ))}
      {placed.map(each => (
        <BarShown
          key={each.item.id}
          week={week}
          bar={each}
          mayMove={mayMove(each.item)}
          focus={followed.of(each.item.id)}
          {...of}
        />
      ))}
    </div>
  )
}

interface DayProps {
  readonly day: number
  readonly isToday: boolean
  readonly isOther: boolean
  readonly onNew: ((day: number) => void) | undefined
}

const Day = ({ day, isToday, isOther, onNew }: DayProps) => (
  <div
    data-day={day}
    aria-current={isToday ? 'date' : undefined}
    className={`group/day relative border-r border-base-300 px-1.5 text-sm [&:nth-child(7)]:border-r-0 ${isOther ? 'bg-base-200/60' : ''}`}
  >
    <span className={isToday ? 'bg-primary px-1 font-bold text-primary-content' : isOther ? 'quiet' : ''}>
      {calendarDay(day).date}
    </span>
    {onNew !== undefined && (
      // By keys it is begun above the calendar: forty more steps of Tab would be in the way.
      <button
        type="button"
        tabIndex={-1}
        aria-hidden
        title="New row on this day"
        className="absolute top-0 right-0 hidden h-6 w-6 cursor-pointer group-hover/day:block hover:font-bold"
        onClick={() => onNew(day)}
      >
        +
      </button>
    )}
  </div>
)

interface BarProps extends Pick<Props, 'week' | 'isPeriod' | 'onDrag' | 'onPut' | 'onStep'> {
  readonly bar: Placed<RowView>
  readonly mayMove: boolean
  readonly focus: ReturnType<Followed['of']>
}

/** What of a bar is dragged: all of it, or one of its ends. */
type Held = 'all' | 'from' | 'through'

const moved = ({ item, from, through }: Bar, held: Held, days: number): Bar => {
  if (held === 'from') return { item, from: Math.min(through, from + days), through }
  if (held === 'through') return { item, from, through: Math.max(from, through + days) }
  return { item, from: from + days, through: through + days }
}

/** It is dragged, or stretched at an end; Alt and arrows move it by a day or a week, with Shift they stretch it. */
function BarShown({ week, bar, mayMove, isPeriod, focus, onDrag, onPut, onStep }: BarProps) {
  const { view } = useOpenBoard()
  const [from, through] = [Math.max(bar.from, week), Math.min(bar.through, week + 6)]
  const keys = (event: KeyboardEvent) => {
    const days = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 }[event.key]
    if (!event.altKey || days === undefined || !mayMove) return
    event.preventDefault()
    onStep(moved(bar, event.shiftKey && isPeriod ? 'through' : 'all', days))
  }
  const drag = (event: PointerEvent, held: Held) => {
    event.stopPropagation()
    if (!mayMove) return
    const grabbed = dayAt(event.clientX, event.clientY)
    const at = (x: number, y: number) => {
      const day = dayAt(x, y)
      return grabbed === undefined || day === undefined ? undefined : moved(bar, held, day - grabbed)
    }
    beginDrag(event, {
      onMove: (x, y) => onDrag(at(x, y)),
      onDrop: (x, y) => {
        const to = at(x, y)
        if (to !== undefined) onPut(to)
      },
      onEnd: () => onDrag(undefined),
    })
  }
  return (
    <button
      type="button"
      {...focus}
      title={mayMove ? `${bar.item.name}: drag to move; so do Alt and arrows` : bar.item.name}
      className={barLooks({ bar, week, mayMove, isOpen: view.row === bar.item.id })}
      style={{
        left: `calc(${((from - week) / 7) * 100}% + 3px)`,
        width: `calc(${((through - from + 1) / 7) * 100}% - 6px)`,
        top: headHeight + bar.line * lineHeight,
        height: lineHeight - 3,
      }}
      onClick={() => view.openRow(bar.item.id)}
      onKeyDown={keys}
      onPointerDown={event => drag(event, 'all')}
    >
      {bar.item.name}
      <span className="sr-only">
        , {writtenDay(bar.from)}
        {bar.through === bar.from ? '' : ` to ${writtenDay(bar.through)}`}
      </span>
      {mayMove && isPeriod && bar.from >= week && <End side="left-0" onDrag={event => drag(event, 'from')} />}
      {mayMove && isPeriod && bar.through <= week + 6 && (
        <End side="right-0" onDrag={event => drag(event, 'through')} />
      )}
    </button>
  )
}

interface Looks extends Pick<BarProps, 'bar' | 'week' | 'mayMove'> {
  readonly isOpen: boolean
}

/** An end that lies in another week has no edge. */
const barLooks = ({ bar, week, mayMove, isOpen }: Looks): string =>
  [
    'absolute truncate border border-base-content/40 bg-base-100 px-1.5 text-left text-sm hover:border-base-content',
    isOpen ? 'border-primary bg-primary/10' : '',
    mayMove ? 'cursor-grab' : 'cursor-pointer',
    bar.from < week ? 'border-l-0' : 'border-l-[3px]',
    bar.through > week + 6 ? 'border-r-0' : '',
  ].join(' ')

interface EndProps {
  readonly side: 'left-0' | 'right-0'
  readonly onDrag: (event: PointerEvent) => void
}

const End = ({ side, onDrag }: EndProps) => (
  <span aria-hidden className={`absolute inset-y-0 w-1.5 cursor-ew-resize ${side}`} onPointerDown={onDrag} />
)

function dayAt(x: number, y: number): number | undefined {
  const day = under(x, y, 'data-day')
  return day === undefined ? undefined : Number(day)
}
