import fc from 'fast-check'
import { expect, test } from 'vitest'
import { type CellWrite, takingBack, withCells } from './writing.ts'

const anyCells = fc.array(
  fc.tuple(
    fc.constantFrom('r1', 'r2', 'r3'),
    fc.constantFrom('a', 'b'),
    fc.option(fc.nat({ max: 9 }), { nil: undefined }),
  ),
  { maxLength: 8 },
)

test('cells by row and column are what was said of each last, and rows of which nothing was said keep their own', () => {
  fc.assert(
    fc.property(fc.array(anyCells, { maxLength: 4 }), steps => {
      const naive = new Map<string, number>()
      let cells = withCells<number>(new Map(), [])
      for (const step of steps) {
        const before = cells
        cells = withCells(before, step)
        for (const [row, column, now] of step)
          if (now === undefined) naive.delete(`${row} ${column}`)
          else naive.set(`${row} ${column}`, now)
        for (const [row, own] of before)
          if (step.every(([other]) => other !== row)) expect(cells.get(row)).toBe(own)
      }
      const flat = [...cells].flatMap(([row, own]) =>
        [...own].map(([column, value]) => [`${row} ${column}`, value] as const),
      )
      expect(new Map(flat)).toEqual(naive)
      expect([...cells.values()].every(own => own.size > 0)).toBe(true)
    }),
  )
})

test('a step that is taken back twice is the step, seen at the versions that it left', () => {
  const anyWrite: fc.Arbitrary<CellWrite> = fc.record({
    row: fc.constantFrom('r1', 'r2'),
    column: fc.constantFrom('a', 'b'),
    value: fc.option(fc.string()),
    before: fc.option(fc.string()),
    seen: fc.nat(),
  })
  fc.assert(
    fc.property(fc.array(anyWrite), fc.nat(), fc.nat(), (cells, first, second) => {
      const versions = (at: number) => ({ r1: at, r2: at })
      const back = takingBack({ cells, versions: versions(first) })
      expect(back.map(each => [each.value, each.seen])).toEqual(cells.map(each => [each.before, first]))
      const again = takingBack({ cells: back, versions: versions(second) })
      expect(again).toEqual(cells.map(each => ({ ...each, seen: second })))
    }),
  )
})
