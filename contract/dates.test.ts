import { expect, test } from 'vitest'
import { dayOf, endOfDay, throughDay } from './dates.ts'

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
})

test('an end is shown as the last day that is still included', () => {
  const until = endOfDay('2026-09-30', 'Europe/London')
  expect(throughDay(until, 'Europe/London', Date.UTC(2026, 5, 1))).toBe('30 Sept')
  expect(throughDay(until, 'Europe/London', Date.UTC(2027, 5, 1))).toBe('30 Sept 2026')
})
