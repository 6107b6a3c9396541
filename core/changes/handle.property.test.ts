import fc from 'fast-check'
import { expect, test } from 'vitest'
import { allRows } from '../base/collection.ts'
import type { State } from '../state/state.ts'
import { after, edit, refusal } from '../tests/judging.ts'
import { person, world } from '../tests/world.ts'
import { freeHandle } from './edits/handle.ts'

const people = ['p0', 'p1', 'p2'] as const
const anyName = fc.oneof(
  fc.string({ unit: 'grapheme', maxLength: 30 }),
  fc.constantFrom('Ada', 'ADA', 'Ádá', '李', '..', 'a'),
)

test('a handle made of any name is one that can be taken', () => {
  fc.assert(
    fc.property(fc.array(anyName, { maxLength: 8 }), names => {
      let state: State = world(...people.map(id => person(id)))
      for (const [index, name] of names.entries()) {
        const who = people[index % people.length]!
        state = after(state, who, edit('person.describe', { person: who, handle: freeHandle(state, name) }))
      }
      expect(allRows(state.handles)).toHaveLength(names.length)
    }),
  )
})

test('whoever takes which handles when: each has one person for ever, and what one had one can take again', () => {
  const step = fc.record({
    who: fc.constantFrom(...people),
    handle: fc.constantFrom('one', 'two', 'three', 'four'),
  })
  fc.assert(
    fc.property(fc.array(step, { maxLength: 15 }), steps => {
      let state: State = world(...people.map(id => person(id)))
      const owner = new Map<string, string>()
      for (const { who, handle } of steps) {
        const taking = edit('person.describe', { person: who, handle })
        const isFree = (owner.get(handle) ?? who) === who
        expect(refusal(state, who, taking) === 'allowed').toBe(isFree)
        if (!isFree) continue
        owner.set(handle, who)
        state = after(state, who, taking)
      }
      expect(new Map(allRows(state.handles).map(each => [each.id as string, each.person as string]))).toEqual(
        owner,
      )
      for (const { id, handle } of allRows(state.persons))
        if (handle !== null) expect(owner.get(handle)).toBe(id)
    }),
  )
})
