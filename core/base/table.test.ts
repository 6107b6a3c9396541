import fc from 'fast-check'
import { expect, test } from 'vitest'
import { deleteIn, emptyTable, entriesOf, getIn, setIn, type Table } from './table.ts'

// 'Aa'-like pairs do not collide under this hash; few keys and many steps still fill, split and empty branches.
const key = fc.integer({ min: 0, max: 200 }).map(number => `key ${number}`)
const step = fc.record({ key, value: fc.option(fc.nat(5), { nil: undefined }) })

const contents = (table: Table<string, number>) => new Map(entriesOf(table))

test('does what a Map does, and leaves every earlier table as it was', () => {
  fc.assert(
    fc.property(fc.array(step, { maxLength: 400 }), steps => {
      let table = emptyTable<string, number>()
      const model = new Map<string, number>()
      const earlier: { table: Table<string, number>; model: Map<string, number> }[] = []
      for (const { key, value } of steps) {
        earlier.push({ table, model: new Map(model) })
        table = value === undefined ? deleteIn(table, key) : setIn(table, key, value)
        if (value === undefined) model.delete(key)
        else model.set(key, value)
        expect(getIn(table, key)).toBe(value)
      }
      for (const each of [...earlier.filter((_, index) => index % 20 === 0), { table, model }]) {
        expect(contents(each.table)).toEqual(each.model)
        expect(each.table.size).toBe(each.model.size)
      }
    }),
    { numRuns: 60 },
  )
})

test('gives the same table back when nothing changes', () => {
  const table = setIn(emptyTable<string, number>(), 'a', 1)
  expect(setIn(table, 'a', 1)).toBe(table)
  expect(deleteIn(table, 'b')).toBe(table)
})
