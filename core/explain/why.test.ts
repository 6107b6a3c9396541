import fc from 'fast-check'
import { expect, test } from 'vitest'
import { check } from '../access/evaluate.ts'
import { placeOf } from '../access/place.ts'
import { hasSteward, who } from '../access/who.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { listActions, noActions } from '../levels/action.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { editor, reader } from '../tests/judging.ts'
import { broken, grant, limit, node, now, person, world } from '../tests/world.ts'
import { anyWorld, nodeIds, personIds } from '../tests/worlds.ts'
import { why } from './why.ts'

const instants = [now - 10, now, now + 5, now + 15, now + 30]

test('who, why and the search for a steward tell the same as check', () => {
  fc.assert(
    fc.property(anyWorld, fc.constantFrom(...instants), (state, at) => {
      const snapshot = snapshotOf(state, at)
      for (const node of nodeIds as unknown as NodeId[]) {
        const held = personIds.map(id => check(snapshot, id as unknown as PersonId, node))
        const active = who(snapshot, node).filter(each => each.isActive)
        expect(active.map(each => each.actions).sort()).toEqual(
          held.filter(each => each !== noActions).sort(),
        )
        expect(hasSteward(snapshot, placeOf(snapshot, node)!)).toBe(
          held.some(each => listActions(each).includes('share')),
        )
        for (const [index, id] of personIds.entries())
          expect(why(snapshot, id as unknown as PersonId, node)?.result).toBe(held[index])
      }
    }),
    { numRuns: 150 },
  )
})

test('a break keeps out what is given above it, and no limit from there', () => {
  const state = world(
    person('p'),
    node('a', 'root'),
    node('b', 'a', broken),
    grant('a', 'person:p', editor),
    grant('b', 'person:p', editor),
    limit('a', 'person:p', reader),
  )
  const sum = why(snapshotOf(state, now), 'p' as PersonId, 'b' as NodeId)
  expect(sum?.grants.map(({ grant }) => grant.id)).toEqual(['b person:p'])
  expect(sum?.keptOut.map(({ grant }) => grant.id)).toEqual(['a person:p'])
  expect(sum?.steps.map(({ kind, leaves }) => [kind, leaves])).toEqual([['limit', reader]])
  expect([sum?.breakAt, sum?.result]).toEqual(['b', reader])
})
