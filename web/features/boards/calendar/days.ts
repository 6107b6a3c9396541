import { calendarDay, dayOf, readDay } from '#core/boards/days.ts'
import type { CellValue } from '#core/boards/kind.ts'

/** Days since 1970: a Thursday. Weeks begin on Monday. */
export const weekBegins = (day: number): number => day - ((((day + 3) % 7) + 7) % 7)

/** The days that a month is drawn with: whole weeks. */
export function monthWeeks(day: number): readonly number[] {
  const { year, month } = calendarDay(day)
  const first = dayOf(year, month, 1) ?? day
  const next = dayOf(month === 12 ? year + 1 : year, month === 12 ? 1 : month + 1, 1) ?? day
  const weeks: number[] = []
  for (let week = weekBegins(first); week < next; week += 7) weeks.push(week)
  return weeks
}

/** The first of the month that is so many months away. */
export function monthAway(day: number, months: number): number {
  const { year, month } = calendarDay(day)
  const index = year * 12 + (month - 1) + months
  return dayOf(Math.floor(index / 12), (index % 12) + 1, 1) ?? day
}

/** From and through, of a date or a period; an instant is the day on which a clock shows it. */
export function spanOf(
  value: CellValue,
  localOf: (instant: number) => number,
): readonly [number, number] | undefined {
  if (typeof value === 'number') {
    const day = Math.floor(localOf(value) / 86_400_000)
    return [day, day]
  }
  const [from, through] = [value].flat().map(each => readDay(String(each)))
  return from === undefined ? undefined : [from, through ?? from]
}

export interface Placed<T> {
  readonly item: T
  readonly from: number
  readonly through: number
  /** Which of the lines of a week it lies in, from 0. */
  readonly line: number
}

/** Bars of one week laid below each other, so that none covers another: earlier and longer ones first. */
export function placedIn<T>(
  week: number,
  items: readonly { readonly item: T; readonly from: number; readonly through: number }[],
): Placed<T>[] {
  const ends: number[] = []
  return items
    .filter(({ from, through }) => from < week + 7 && through >= week)
    .toSorted((a, b) => a.from - b.from || b.through - a.through)
    .map(each => {
      const from = Math.max(each.from, week)
      const free = ends.findIndex(end => end < from)
      const line = free === -1 ? ends.length : free
      ends[line] = Math.min(each.through, week + 6)
      return { ...each, line }
    })
}
