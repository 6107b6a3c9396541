import { dayLength } from '#core/boards/days.ts'

/** What clocks show in a time zone (an IANA name): the same for the server and its pages. */

const clocks = new Map<string, Intl.DateTimeFormat>()

/** What a clock shows at an instant, as if it were UTC. */
export function localOf(instant: number, timeZone: string): number {
  const clock =
    clocks.get(timeZone) ??
    new Intl.DateTimeFormat('en-GB', {
      timeZone,
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
      second: 'numeric',
    })
  clocks.set(timeZone, clock)
  const parts = Object.fromEntries(
    clock.formatToParts(instant).map(({ type, value }) => [type, Number(value)]),
  )
  const { year = 0, month = 1, day = 1, hour = 0, minute = 0, second = 0 } = parts
  return Date.UTC(year, month - 1, day, hour, minute, second)
}

/** The instant at which a clock shows something first; where it never does, when it would. */
export function instantOf(local: number, timeZone: string): number {
  const first = local - (localOf(local - dayLength, timeZone) - (local - dayLength))
  const later = local - (localOf(local + dayLength, timeZone) - (local + dayLength))
  const fitting = [first, later].filter(instant => localOf(instant, timeZone) === local)
  return fitting.length === 0 ? later : Math.min(...fitting)
}
