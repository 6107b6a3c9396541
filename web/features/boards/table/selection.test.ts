import fc from 'fast-check'
import { expect, test } from 'vitest'
import { blockOf, isIn, isOne, movedBy } from './selection.ts'

const keys = ['ArrowDown', 'ArrowUp', 'ArrowRight', 'ArrowLeft', 'PageDown', 'PageUp', 'Home', 'End'] as const
const opposite = {
  ArrowDown: 'ArrowUp',
  ArrowUp: 'ArrowDown',
  ArrowRight: 'ArrowLeft',
  ArrowLeft: 'ArrowRight',
} as const

const anyTable = fc
  .record({ rows: fc.integer({ min: 1, max: 60 }), columns: fc.integer({ min: 1, max: 9 }) })
  .chain(size =>
    fc.record({
      bounds: fc.constant({ ...size, page: 20 }),
      at: fc.record({ row: fc.nat({ max: size.rows - 1 }), column: fc.nat({ max: size.columns - 1 }) }),
      from: fc.record({ row: fc.nat({ max: size.rows - 1 }), column: fc.nat({ max: size.columns - 1 }) }),
    }),
  )

test('every key stays in the table, and an arrow that moved is taken back by its opposite', () => {
  fc.assert(
    fc.property(anyTable, fc.constantFrom(...keys), fc.boolean(), ({ bounds, at }, key, ctrlKey) => {
      const to = movedBy({ key, ctrlKey, metaKey: false }, at, bounds)
      if (to === undefined) throw new Error(`${key} leads nowhere`)
      expect(isIn({ top: 0, left: 0, bottom: bounds.rows - 1, right: bounds.columns - 1 }, to)).toBe(true)
      const isStep = Math.abs(to.row - at.row) + Math.abs(to.column - at.column) === 1
      if (!ctrlKey && isStep && key in opposite)
        expect(
          movedBy({ key: opposite[key as keyof typeof opposite], ctrlKey, metaKey: false }, to, bounds),
        ).toEqual(at)
      // What goes as far as it can goes no further.
      if (ctrlKey && key !== 'PageDown' && key !== 'PageUp')
        expect(movedBy({ key, ctrlKey, metaKey: false }, to, bounds)).toEqual(to)
    }),
  )
  expect(
    movedBy(
      { key: 'x', ctrlKey: false, metaKey: false },
      { row: 0, column: 0 },
      { rows: 1, columns: 1, page: 1 },
    ),
  ).toBeUndefined()
})

test('a block has both its corners in it, and no cell beyond them', () => {
  fc.assert(
    fc.property(anyTable, ({ at, from }) => {
      const block = blockOf({ at, from })
      expect(isIn(block, at) && isIn(block, from)).toBe(true)
      expect(isIn(block, { row: block.bottom + 1, column: block.left })).toBe(false)
      expect(isIn(block, { row: block.top, column: block.left - 1 })).toBe(false)
      expect(isOne(block)).toBe(at.row === from.row && at.column === from.column)
    }),
  )
})
