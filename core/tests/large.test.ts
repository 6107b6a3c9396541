import { expect, test } from 'vitest'
import { check } from '../access/evaluate.ts'
import { who } from '../access/who.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { after, edit, giving, reader, steward } from './judging.ts'
import { grant, node, now, person, world } from './world.ts'

/** Sizes at which anything quadratic would not come back. */
test('a node with 50,000 children is shared, broken and limited', () => {
  const children = Array.from({ length: 50_000 }, (_, index) => node(`c${index}`, 'top'))
  const state = world(person('p'), node('top', 'root'), grant('top', 'person:owner', steward), ...children)
  const shared = after(state, 'owner', giving('top', 'person:p', reader))
  const broken = after(shared, 'owner', edit('node.break', { node: 'c49999', mode: 'keep', copies: 'k' }))
  const snapshot = snapshotOf(broken, now)
  expect(check(snapshot, 'p' as PersonId, 'c49999' as NodeId)).toBe(reader)
  expect(
    who(snapshot, 'c25000' as NodeId)
      .map(each => each.person.id)
      .sort(),
  ).toEqual(['owner', 'p'])
})

test('a tree 5,000 deep has an answer at its end', () => {
  const chain = Array.from({ length: 5000 }, (_, depth) =>
    node(`d${depth}`, depth === 0 ? 'top' : `d${depth - 1}`),
  )
  const state = world(person('p'), node('top', 'root'), grant('top', 'person:p', reader), ...chain)
  expect(check(snapshotOf(state, now), 'p' as PersonId, 'd4999' as NodeId)).toBe(reader)
})
