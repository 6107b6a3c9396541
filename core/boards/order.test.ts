import fc from 'fast-check'
import { expect, test } from 'vitest'
import { placing } from './order.ts'

/** Equal numbers stand in the order in which they came: as rows do by their ids. */
const inOrder = <T>(rows: readonly { readonly is: T; readonly order: number }[]): T[] =>
  rows
    .map((row, nth) => ({ ...row, nth }))
    .sort((a, b) => a.order - b.order || a.nth - b.nth)
    .map(row => row.is)

const some = fc
  .array(
    fc.oneof(fc.constantFrom(0, 1, 1024, 2048), fc.integer({ min: -5000, max: 5000 }), fc.constant(1.5)),
    {
      maxLength: 12,
    },
  )
  .map(orders => orders.sort((a, b) => a - b))
  .chain(orders =>
    fc.record({
      orders: fc.constant(orders),
      at: fc.nat({ max: orders.length }),
      count: fc.integer({ min: 1, max: 4 }),
    }),
  )

test('what is put among others stands there, and these stand as they did', () => {
  fc.assert(
    fc.property(some, ({ orders, at, count }) => {
      const { moved, others } = placing(orders, at, count)
      const now = orders.map((order, place) => ({
        is: place,
        order: others.find(each => each[0] === place)?.[1] ?? order,
      }))
      const put = moved.map((order, nth) => ({ is: -1 - nth, order }))
      const places = orders.map((_, place) => place)
      const wanted = [...places.slice(0, at), ...put.map(each => each.is), ...places.slice(at)]
      // Wherever those that are put there would stand among equals.
      expect(inOrder([...now, ...put])).toEqual(wanted)
      expect(inOrder([...put, ...now])).toEqual(wanted)
    }),
    { numRuns: 2000 },
  )
})

test('others make room only where there is none, and as few as can', () => {
  expect(placing([1024, 2048], 1, 1)).toEqual({ moved: [1536], others: [] })
  expect(placing([], 0, 2)).toEqual({ moved: [1024, 2048], others: [] })
  expect(placing([0, 0, 0, 0], 3, 1).others).toEqual([[3, 2048]])
  expect(placing([0, 0, 0, 0], 1, 1).others).toEqual([[0, -2048]])
  // Numbers between two others run out after some fifty times: then one makes room.
  let orders = [0, 1, 5000]
  for (let nth = 0; nth < 200; nth += 1) {
    const { moved, others } = placing(orders, 1, 1)
    expect(others.length).toBeLessThanOrEqual(60)
    orders = [
      ...orders.map((order, place) => others.find(each => each[0] === place)?.[1] ?? order),
      ...moved,
    ].sort((a, b) => a - b)
  }
  expect(new Set(orders).size).toBe(203)
})
