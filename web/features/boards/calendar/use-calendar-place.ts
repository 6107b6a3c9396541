import { useSearchParams } from 'react-router'
import { readDay, writtenDay } from '#core/boards/days.ts'

export interface CalendarPlace {
  readonly day: number
  readonly isMonth: boolean
}

/** Which month or week is shown: it stands in the address, too. */
export function useCalendarPlace(today: number): readonly [CalendarPlace, (place: CalendarPlace) => void] {
  const [search, setSearch] = useSearchParams()
  const day = readDay(search.get('on') ?? '') ?? today
  const place = { day, isMonth: search.get('span') !== 'week' }
  const put = (next: CalendarPlace) =>
    setSearch(
      before => {
        const after = new URLSearchParams(before)
        after.set('on', writtenDay(next.day))
        if (next.isMonth) after.delete('span')
        else after.set('span', 'week')
        return after
      },
      { replace: true },
    )
  return [place, put]
}
