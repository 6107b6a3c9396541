import fc from 'fast-check'
import { expect, test } from 'vitest'
import {
  emptyNumbering,
  idOf,
  numbered,
  numberedAll,
  numberOf,
  type Numbering,
  unnumbered,
} from './numbering.ts'
import { linesOf, packIds } from './packed-ids.ts'

const ids = [...Array(12).keys()].map(index => `id${index}`)
const anyId = fc.constantFrom(...ids)
const anyStep = fc.oneof(
  fc.record({ kind: fc.constant('goes' as const), id: anyId }),
  fc.record({ kind: fc.constant('comes' as const), id: anyId }),
  fc.record({ kind: fc.constant('come' as const), some: fc.subarray(ids) }),
)

interface Version {
  readonly numbering: Numbering<string>
  readonly model: ReadonlyMap<string, number>
}

function expectToHold({ numbering, model }: Version): void {
  for (const id of ids) expect([id, numberOf(numbering, id)]).toEqual([id, model.get(id)])
  const byNumber = new Map([...model].map(([id, number]) => [number, id]))
  expect(byNumber.size).toBe(model.size)
  for (let number = 0; number < numbering.length; number += 1)
    expect([number, idOf(numbering, number)]).toEqual([number, byNumber.get(number)])
}

/** What comes gets a number that nobody has; what is there keeps its own. */
function withAll({ numbering, model }: Version, some: readonly string[]): Version {
  const fresh = some.filter(id => !model.has(id))
  const next = numberedAll(numbering, fresh)
  const added = fresh.map(id => [id, numberOf(next, id) as number] as const)
  const taken = new Set(model.values())
  expect(added.every(([, number]) => !taken.has(number) && number < next.length)).toBe(true)
  return { numbering: next, model: new Map([...model, ...added]) }
}

function without({ numbering, model }: Version, id: string): Version {
  return {
    numbering: unnumbered(numbering, id),
    model: new Map([...model].filter(([other]) => other !== id)),
  }
}

test('ids keep their numbers while they are there, each its own, packed or not; those given back are taken again', () => {
  fc.assert(
    fc.property(fc.subarray(ids), fc.array(anyStep, { maxLength: 25 }), (packed, steps) => {
      const numbering = emptyNumbering<string>(packIds({ lines: linesOf(packed), count: packed.length }))
      const versions: Version[] = [{ numbering, model: new Map(packed.map((id, number) => [id, number])) }]
      let most = packed.length
      for (const step of steps) {
        const last = versions.at(-1) as Version
        const some = step.kind === 'come' ? step.some : [step.id]
        const next = step.kind === 'goes' ? without(last, step.id) : withAll(last, some)
        most = Math.max(most, next.model.size)
        expect(next.numbering.length).toBe(most)
        versions.push(next)
      }
      for (const version of versions) expectToHold(version)
    }),
  )
})

test('one that comes gets the number that was given back last', () => {
  const three = numberedAll(emptyNumbering<string>(), ['a', 'b', 'c'])
  const one = unnumbered(unnumbered(three, 'a'), 'b')
  const [two, first] = numbered(one, 'd')
  const [all, second] = numbered(two, 'e')
  expect([first, second, all.length]).toEqual([1, 0, 3])
  expect(numbered(all, 'f')[1]).toBe(3)
})
