import { expect, test } from 'vitest'
import { dayOf, endOfDay, nextMonth, startOfDay, throughDay } from './dates.ts'

test.each([
  ['2026-09-30', 'Europe/London', '2026-09-30T23:00:00.000Z'],
  ['2026-12-31', 'Europe/London', '2027-01-01T00:00:00.000Z'],
  ['2026-03-28', 'Europe/London', '2026-03-29T00:00:00.000Z'], // the clocks change the night after
  ['2026-03-29', 'Europe/London', '2026-03-29T23:00:00.000Z'], // a day of 23 hours
  ['2026-10-25', 'Europe/Berlin', '2026-10-25T23:00:00.000Z'], // a day of 25 hours
  ['2026-06-01', 'Pacific/Auckland', '2026-06-01T12:00:00.000Z'],
  ['2026-06-01', 'America/St_Johns', '2026-06-02T02:30:00.000Z'],
])('%s in %s lasts until %s', (day, timeZone, instant) => {
  expect(new Date(endOfDay(day, timeZone)).toISOString()).toBe(instant)
  expect(dayOf(endOfDay(day, timeZone) - 1, timeZone)).toBe(day)
  // The next day begins where this one ends.
  expect(startOfDay(dayOf(endOfDay(day, timeZone), timeZone), timeZone)).toBe(endOfDay(day, timeZone))
})

test('an end is shown as the last day that is still included', () => {
  const until = endOfDay('2026-09-30', 'Europe/London')
  expect(throughDay(until, 'Europe/London', Date.UTC(2026, 5, 1))).toBe('30 Sept')
  expect(throughDay(until, 'Europe/London', Date.UTC(2027, 5, 1))).toBe('30 Sept 2026')
})

test.each([
  ['2026-11-25T09:00:00Z', 'Europe/London', '2026-12-01T00:00:00.000Z'],
  ['2026-12-31T23:59:59Z', 'Europe/London', '2027-01-01T00:00:00.000Z'],
  ['2027-01-01T00:00:00Z', 'Europe/London', '2027-02-01T00:00:00.000Z'],
  ['2028-02-29T12:00:00Z', 'Europe/Berlin', '2028-02-29T23:00:00.000Z'],
  ['2026-03-15T12:00:00Z', 'Europe/London', '2026-03-31T23:00:00.000Z'], // the clocks change in between
  ['2026-06-30T13:00:00Z', 'Pacific/Auckland', '2026-07-31T12:00:00.000Z'], // July there already
])('the month after %s in %s begins at %s', (at, timeZone, begins) => {
  expect(new Date(nextMonth(Date.parse(at), timeZone)).toISOString()).toBe(begins)
})
