import { expect, test } from 'vitest'
import { datesFor } from './dates.tsx'

const newYear = Date.UTC(2026, 11, 31, 23, 30)

test('a date is written in the reader’s language and time zone', () => {
  expect(datesFor('de-DE', 'Europe/London')(newYear, 'day of a year')).toBe('31. Dez. 2026')
  expect(datesFor('en-GB', 'Europe/Berlin')(newYear, 'day of a year')).toBe('1 Jan 2027')
  expect(datesFor('ja-JP', 'Asia/Tokyo')(newYear, 'long day')).toBe('2027年1月1日金曜日')
})

test('another time zone counts where one is given, and each is kept apart', () => {
  const inWords = datesFor('en-GB', 'Europe/Berlin')
  const years = () => [inWords(newYear, 'year'), inWords(newYear, 'year', 'America/New_York')]
  expect([years(), years()]).toEqual([
    ['2027', '2026'],
    ['2027', '2026'],
  ])
  expect([inWords(newYear, 'time'), inWords(newYear, 'time', 'UTC')]).toEqual(['00:30', '23:30'])
})
