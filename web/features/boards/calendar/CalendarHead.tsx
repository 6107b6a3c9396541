import { dayLength } from '#core/boards/days.ts'
import { FilterWords } from '../../../ui/FilterWords.tsx'
import { type OpenBoard, useOpenBoard } from '../board-context.ts'
import { monthAway } from './days.ts'
import type { CalendarPlace } from './use-calendar-place.ts'

const months = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' })

export const monthName = (day: number): string => months.format(day * dayLength)

interface HeadProps {
  readonly by: string
  readonly place: CalendarPlace
  readonly onPlace: (place: CalendarPlace) => void
  /** Begins a row; nothing where none can be added. */
  readonly onNew: (() => void) | undefined
}

/** Which month or week it is, and the ways to others. */
export function CalendarHead({ by, place, onPlace: setPlace, onNew }: HeadProps) {
  const { info } = useOpenBoard()
  const step = (count: number) =>
    setPlace({ ...place, day: place.isMonth ? monthAway(place.day, count) : place.day + count * 7 })
  return (
    <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
      <h2 className="w-44 text-lg font-bold" aria-live="polite">
        {monthName(place.day)}
      </h2>
      <span className="flex gap-1.5">
        <button type="button" className="btn-inline" aria-label="Earlier" onClick={() => step(-1)}>
          ‹
        </button>
        <button type="button" className="btn-inline" onClick={() => setPlace({ ...place, day: info.today })}>
          Today
        </button>
        <button type="button" className="btn-inline" aria-label="Later" onClick={() => step(1)}>
          ›
        </button>
      </span>
      <FilterWords
        label="How much"
        words={['Month', 'Week'] as const}
        chosen={place.isMonth ? 'Month' : 'Week'}
        onChoose={word => setPlace({ ...place, isMonth: word === 'Month' })}
      />
      <ByChoice by={by} />
      {onNew !== undefined && (
        <button type="button" className="btn-inline" onClick={onNew}>
          New row …
        </button>
      )}
    </div>
  )
}

function ByChoice({ by }: { readonly by: string }) {
  const board = useOpenBoard()
  return (
    <label className="flex items-center gap-1.5">
      <span className="quiet">by</span>
      <select
        className="cursor-pointer bg-base-100 font-semibold"
        value={by}
        onChange={event => board.view.change({ by: event.target.value })}
      >
        {calendarColumns(board).map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  )
}

/** The columns whose days can be drawn. */
export const calendarColumns = ({ info }: OpenBoard) =>
  info.columns.filter(({ kind }) => kind === 'date' || kind === 'period')
