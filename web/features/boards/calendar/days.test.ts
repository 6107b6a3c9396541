import fc from 'fast-check'
import { expect, test } from 'vitest'
import { calendarDay } from '#core/boards/days.ts'
import { monthAway, monthWeeks, placedIn, weekBegins } from './days.ts'

const anyDay = fc.integer({ min: -20_000, max: 60_000 })

test('weeks begin on Mondays, and a month is drawn with all of its days', () => {
  fc.assert(
    fc.property(anyDay, day => {
      const begins = weekBegins(day)
      expect(new Date(begins * 86_400_000).getUTCDay()).toBe(1)
      expect(day - begins).toBeGreaterThanOrEqual(0)
      expect(day - begins).toBeLessThan(7)
      const { year, month } = calendarDay(day)
      const days = monthWeeks(day).flatMap(week => Array.from({ length: 7 }, (_, nth) => week + nth))
      const own = days.filter(each => calendarDay(each).month === month)
      expect(own).toHaveLength(new Date(Date.UTC(year, month, 0)).getUTCDate())
      expect(days.length - own.length).toBeLessThan(14)
    }),
  )
})

test('months away and back again', () => {
  fc.assert(
    fc.property(anyDay, fc.integer({ min: -40, max: 40 }), (day, months) => {
      const first = monthAway(day, 0)
      expect(calendarDay(first)).toEqual({ ...calendarDay(day), date: 1 })
      expect(monthAway(monthAway(day, months), -months)).toBe(first)
    }),
  )
})

test('no bar of a week covers another, and each is there', () => {
  const anyBar = fc.record({ from: fc.integer({ min: -10, max: 15 }), length: fc.nat({ max: 12 }) })
  fc.assert(
    fc.property(fc.array(anyBar, { maxLength: 12 }), bars => {
      const items = bars.map(({ from, length }, item) => ({ item, from, through: from + length }))
      const placed = placedIn(0, items)
      expect(placed.map(each => each.item).sort()).toEqual(
        items
          .filter(each => each.from < 7 && each.through >= 0)
          .map(each => each.item)
          .sort(),
      )
      for (const a of placed)
        for (const b of placed)
          if (a !== b && a.line === b.line)
            expect(
              a.from > b.through ||
                b.from > a.through ||
                a.through < 0 ||
                b.through < 0 ||
                Math.max(a.from, 0) > Math.min(b.through, 6) ||
                Math.max(b.from, 0) > Math.min(a.through, 6),
            ).toBe(true)
    }),
  )
})
