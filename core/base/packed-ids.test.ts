import fc from 'fast-check'
import { expect, test } from 'vitest'
import { linesOf, numbersOf, packedIdOf, packedNumberOf, packIds } from './packed-ids.ts'
import { hashOf } from './table.ts'

const anyId = fc.stringMatching(/^[a-z0-9-]{1,30}$/)
const sameWidth = fc.stringMatching(/^[a-c]{26}$/)

test.each([
  ['of any length', anyId],
  ['of one length', sameWidth],
])('ids %s are found by their numbers, numbers by their ids, and references by the line', (_, id) => {
  fc.assert(
    fc.property(fc.uniqueArray(id, { maxLength: 60 }), fc.array(fc.nat(59)), anyId, (ids, picks, other) => {
      const packed = packIds({ lines: linesOf(ids), count: ids.length })
      expect(ids.map((_id, number) => packedIdOf(packed, number))).toEqual(ids)
      expect(ids.map(each => packedNumberOf(packed, each))).toEqual(ids.map((_id, number) => number))
      expect(packedNumberOf(packed, other)).toBe(ids.includes(other) ? ids.indexOf(other) : undefined)
      const references = picks.map(pick => ids[pick] ?? '')
      const read = numbersOf(packed, { lines: linesOf(references), count: references.length }, -1)
      expect([...read]).toEqual(references.map(each => ids.indexOf(each)))
    }),
  )
})

test('ids of one hash are told apart, by themselves and as references', () => {
  const [first, second] = twoOfOneHash()
  const ids = ['begin', first, second, `x${first}`]
  const packed = packIds({ lines: linesOf(ids), count: ids.length })
  expect(ids.map(each => packedNumberOf(packed, each))).toEqual([0, 1, 2, 3])
  expect([...numbersOf(packed, { lines: linesOf(ids), count: 4 }, -1)]).toEqual([0, 1, 2, 3])
})

/** Ids of twelve characters, of which a hash is made. */
function twoOfOneHash(): [string, string] {
  const known = new Map<number, string>()
  for (let number = 0; ; number += 1) {
    const id = `id-${String(number).padStart(9, '0')}`
    const other = known.get(hashOf(id))
    if (other !== undefined) return [other, id]
    known.set(hashOf(id), id)
  }
}
