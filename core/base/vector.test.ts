import fc from 'fast-check'
import { expect, test } from 'vitest'
import {
  type Vector,
  vectorOf,
  createFull,
  emptyVector,
  none,
  read,
  write,
  writingIn,
  writingOf,
} from './vector.ts'

/** Addresses in several pages, near their ends and among the first ones of a short page. */
const address = fc.oneof(
  fc.integer({ min: 0, max: 40 }),
  fc.integer({ min: 4090, max: 4100 }),
  fc.integer({ min: 8000, max: 9000 }),
)
const writes = fc.array(fc.tuple(address, fc.integer({ min: -1, max: 1000 })), { maxLength: 30 })

interface Version {
  readonly vector: Vector
  readonly model: ReadonlyMap<number, number>
}

function expectToHold({ vector, model }: Version): void {
  expect(vector.length).toBe(Math.max(0, ...[...model.keys()].map(each => each + 1)))
  for (const [at, value] of model) expect(read(vector, at)).toBe(value)
}

/** The next version, made with some writes. */
function written({ vector, model }: Version, changes: readonly (readonly [number, number])[]): Version {
  const writing = writingOf(vector)
  for (const [at, value] of changes) write(writing, at, value)
  return { vector: vectorOf(writing), model: new Map([...model, ...changes]) }
}

test('each version of a vector holds what was written up to it, and never what was written later', () => {
  fc.assert(
    fc.property(fc.array(writes, { maxLength: 6 }), rounds => {
      const versions: Version[] = [{ vector: emptyVector, model: new Map() }]
      for (const changes of rounds) versions.push(written(versions.at(-1) as Version, changes))
      for (const version of versions) expectToHold(version)
    }),
  )
})

test('versions share the pages in which nothing was written, and only those', () => {
  fc.assert(
    fc.property(writes, writes, (first, then) => {
      const before = written({ vector: emptyVector, model: new Map() }, first)
      const after = written(before, then)
      const affected = new Set(then.map(([at]) => at >> 12))
      for (const [index, page] of before.vector.pages.entries())
        expect(after.vector.pages[index] === page).toBe(!affected.has(index))
    }),
  )
})

test('a whole goes on being written, and keeps what it was for whoever holds it', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(1000), { minLength: 1, maxLength: 50 }), writes, (values, changes) => {
      const whole = createFull(5000)
      expect(whole.every(each => each === none)).toBe(true)
      whole.set(values)
      const model = new Map(values.entries())
      const made: Version = { vector: vectorOf(writingIn(whole, values.length)), model }
      const later = written(made, changes)
      expectToHold(made)
      expectToHold(later)
      expect([...whole.subarray(0, values.length)]).toEqual(values)
      expect(made.vector.pages.every(page => page.buffer instanceof SharedArrayBuffer)).toBe(true)
    }),
  )
})
