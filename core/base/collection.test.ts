import fc from 'fast-check'
import { expect, test } from 'vitest'
import { allRows, baseOf, type Collection, createCollection, rowOf, rowsBy, withRow } from './collection.ts'

interface Row {
  readonly id: string
  readonly of: string | null
  readonly value: number
}

const keys = { of: (row: Row) => row.of }
const ids = ['a', 'b', 'c', 'd', 'e', 'f']
const owners = ['x', 'y']
const anyRow = fc.record({
  id: fc.constantFrom(...ids),
  of: fc.constantFrom(...owners, null),
  value: fc.nat(3),
})

const byId = (rows: readonly Row[]) => rows.toSorted((a, b) => (a.id < b.id ? -1 : 1))

function expectToHold(collection: Collection<Row, 'of'>, model: ReadonlyMap<string, Row>): void {
  const all = byId([...model.values()])
  expect(collection.size).toBe(model.size)
  expect(byId(allRows(collection))).toEqual(all)
  for (const id of ids) expect(rowOf(collection, id)).toEqual(model.get(id))
  for (const owner of owners)
    expect(byId(rowsBy(collection, 'of', owner))).toEqual(all.filter(row => row.of === owner))
}

test('a collection on a base holds what one holds that was made row by row, whatever comes, changes or goes', () => {
  const anySteps = fc.array(fc.oneof(anyRow, fc.constantFrom(...ids)), { maxLength: 20 })
  fc.assert(
    fc.property(fc.uniqueArray(anyRow, { selector: row => row.id }), anySteps, (first, steps) => {
      let collection: Collection<Row, 'of'> = createCollection(keys, baseOf(first, keys))
      const model = new Map(first.map(row => [row.id, row]))
      const before = { collection, model: new Map(model) }
      for (const step of steps) {
        const id = typeof step === 'string' ? step : step.id
        collection = withRow(collection, id, typeof step === 'string' ? null : step)
        if (typeof step === 'string') model.delete(id)
        else model.set(id, step)
        expectToHold(collection, model)
      }
      expectToHold(before.collection, before.model)
    }),
  )
})
