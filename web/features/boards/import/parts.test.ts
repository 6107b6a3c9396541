import fc from 'fast-check'
import { expect, test } from 'vitest'
import { partsOf } from './parts.ts'

test('parts are all rows in their order, none too large for a request that takes more than one', () => {
  const anyRow = fc
    .tuple(fc.integer({ min: 1, max: 100 }), fc.integer({ min: 0, max: 50_000 }))
    .map(([cells, length]) => [...Array<string>(cells - 1).fill('x'), 'y'.repeat(length)])
  fc.assert(
    fc.property(fc.array(anyRow, { maxLength: 60 }), fc.integer({ min: 1, max: 30 }), (kinds, times) => {
      const rows = Array.from({ length: times }, () => kinds).flat()
      const places = [...rows.keys()]
      const parts = [...partsOf(places, place => rows[place] ?? [])]
      expect(parts.flat()).toEqual(places)
      for (const part of parts) {
        const of = part.map(place => rows[place] ?? [])
        const cells = of.reduce((sum, row) => sum + row.length, 0)
        const signs = of.flat().reduce((sum, cell) => sum + cell.length + 4, 0)
        expect(part.length).toBeGreaterThan(0)
        if (part.length > 1)
          expect([part.length <= 500, cells <= 4000, signs <= 400_000]).toEqual([true, true, true])
      }
    }),
    { numRuns: 60 },
  )
})
