import fc from 'fast-check'
import { expect, test } from 'vitest'
import { rangeIn } from './use-shown-range.ts'

const columns = fc.array(fc.integer({ min: 40, max: 600 }), { minLength: 1, maxLength: 60 })

test('every column of which something is in sight is drawn, and stands where it would among all', () => {
  fc.assert(
    fc.property(columns, fc.nat(20_000), fc.integer({ min: 1, max: 3000 }), (widths, left, width) => {
      const { from, until, before } = rangeIn(
        widths.map(each => ({ width: each })),
        left,
        width,
      )
      const widthUntil = (nth: number) => widths.slice(0, nth).reduce((sum, each) => sum + each, 0)
      const inSight = widths.flatMap((each, nth) =>
        nth > 0 && widthUntil(nth) < left + width && widthUntil(nth) + each > left ? [nth] : [],
      )
      for (const nth of inSight) expect([from <= nth, nth < until]).toEqual([true, true])
      // Those that are left out before them take the place that they would take, and the first is always drawn.
      expect(before).toBe(from === 1 ? 0 : widthUntil(Math.min(from, widths.length)) - (widths[0] ?? 0))
      // No more than lie in sight, and one screen's edge to both sides.
      const drawn = widths.slice(from, until).reduce((sum, each) => sum + each, 0)
      expect(drawn).toBeLessThanOrEqual(width + 2 * 400 + 2 * 600)
    }),
  )
})
