import fc from 'fast-check'
import { expect, test } from 'vitest'
import {
  type Column,
  columnOf,
  createWhole,
  emptyColumn,
  none,
  read,
  write,
  writingIn,
  writingOf,
} from './column.ts'

/** Addresses in several pages, near their ends and among the first ones of a short page. */
const address = fc.oneof(
  fc.integer({ min: 0, max: 40 }),
  fc.integer({ min: 4090, max: 4100 }),
  fc.integer({ min: 8000, max: 9000 }),
)
const writes = fc.array(fc.tuple(address, fc.integer({ min: -1, max: 1000 })), { maxLength: 30 })

interface Version {
  readonly column: Column
  readonly model: ReadonlyMap<number, number>
}

function expectToHold({ column, model }: Version): void {
  expect(column.length).toBe(Math.max(0, ...[...model.keys()].map(each => each + 1)))
  for (const [at, value] of model) expect(read(column, at)).toBe(value)
}

/** The next version, made with some writes. */
function written({ column, model }: Version, changes: readonly (readonly [number, number])[]): Version {
  const writing = writingOf(column)
  for (const [at, value] of changes) write(writing, at, value)
  return { column: columnOf(writing), model: new Map([...model, ...changes]) }
}

test('each version of a column holds what was written up to it, and never what was written later', () => {
  fc.assert(
    fc.property(fc.array(writes, { maxLength: 6 }), rounds => {
      const versions: Version[] = [{ column: emptyColumn, model: new Map() }]
      for (const changes of rounds) versions.push(written(versions.at(-1) as Version, changes))
      for (const version of versions) expectToHold(version)
    }),
  )
})

test('versions share the pages in which nothing was written, and only those', () => {
  fc.assert(
    fc.property(writes, writes, (first, then) => {
      const before = written({ column: emptyColumn, model: new Map() }, first)
      const after = written(before, then)
      const touched = new Set(then.map(([at]) => at >> 12))
      for (const [index, page] of before.column.pages.entries())
        expect(after.column.pages[index] === page).toBe(!touched.has(index))
    }),
  )
})

test('a whole goes on being written, and keeps what it was for whoever holds it', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(1000), { minLength: 1, maxLength: 50 }), writes, (values, changes) => {
      const whole = createWhole(5000)
      expect(whole.every(each => each === none)).toBe(true)
      whole.set(values)
      const model = new Map(values.entries())
      const made: Version = { column: columnOf(writingIn(whole, values.length)), model }
      const later = written(made, changes)
      expectToHold(made)
      expectToHold(later)
      expect([...whole.subarray(0, values.length)]).toEqual(values)
      expect(made.column.pages.every(page => page.buffer instanceof SharedArrayBuffer)).toBe(true)
    }),
  )
})
