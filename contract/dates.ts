import type { Instant } from '#core/base/instant.ts'
import { localOf } from './clock.ts'

/**
 * The end of a calendar day in a time zone: what "through 30 Sep" means. The first instant that is no
 * longer that day there, so that a span until it holds the whole day, also where clocks change.
 */
export function endOfDay(day: string, timeZone: string): Instant {
  const nextDay = Date.parse(`${day}T00:00:00Z`) + 86_400_000
  // The offset is asked for twice: the first guess may lie on the other side of a clock change.
  const guess = nextDay - offsetAt(nextDay, timeZone)
  return nextDay - offsetAt(guess, timeZone)
}

/** The first instant of a calendar day in a time zone: what "from 1 Oct" means. */
export const startOfDay = (day: string, timeZone: string): Instant =>
  endOfDay(new Date(Date.parse(`${day}T00:00:00Z`) - 86_400_000).toISOString().slice(0, 10), timeZone)

/** The first instant of the next calendar month there: when the next period of what is paid by the month begins. */
export function nextMonth(now: Instant, timeZone: string): Instant {
  const [year, month] = dayOf(now, timeZone).split('-').map(Number)
  const lastDay = new Date(Date.UTC(year ?? 0, month ?? 1, 0)).toISOString().slice(0, 10)
  return endOfDay(lastDay, timeZone)
}

/** The calendar day in a time zone, as YYYY-MM-DD. */
export const dayOf = (at: Instant, timeZone: string): string => days(timeZone).format(at)

/** To make a format takes a hundred times as long as to use it, and lists tell dates by the thousand. */
function kept(
  locale: string,
  options: Intl.DateTimeFormatOptions,
): (timeZone: string) => Intl.DateTimeFormat {
  const formats = new Map<string, Intl.DateTimeFormat>()
  return timeZone => {
    const format = formats.get(timeZone) ?? new Intl.DateTimeFormat(locale, { ...options, timeZone })
    formats.set(timeZone, format)
    return format
  }
}

const days = kept('en-CA', { year: 'numeric', month: '2-digit', day: '2-digit' })

/** A last day as people say it: "30 Sep", with the year where it is not this one. */
export function throughDay(until: Instant, timeZone: string, now: Instant): string {
  const last = until - 1
  const sameYear = dayOf(last, timeZone).slice(0, 4) === dayOf(now, timeZone).slice(0, 4)
  return (sameYear ? dates : datesWithYear)(timeZone).format(last)
}

const dates = kept('en-GB', { day: 'numeric', month: 'short' })
const datesWithYear = kept('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })

const offsetAt = (at: Instant, timeZone: string): number => localOf(at, timeZone) - at

export function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name })
    return true
  } catch {
    return false
  }
}
