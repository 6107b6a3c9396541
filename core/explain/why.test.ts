import fc from 'fast-check'
import { expect, test } from 'vitest'
import { check } from '../access/evaluate.ts'
import { placeOf } from '../access/place.ts'
import { hasSteward, who } from '../access/who.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { listActions, noActions } from '../levels/action.ts'
import { momentOf } from '../state/moment.ts'
import { now } from '../tests/world.ts'
import { anyWorld, nodeIds, personIds } from '../tests/worlds.ts'
import { why } from './why.ts'

const instants = [now - 10, now, now + 5, now + 15, now + 30]

test('who, why and the search for a steward tell the same as check', () => {
  fc.assert(
    fc.property(anyWorld, fc.constantFrom(...instants), (state, at) => {
      const moment = momentOf(state, at)
      for (const node of nodeIds as unknown as NodeId[]) {
        const held = personIds.map(id => check(moment, id as unknown as PersonId, node))
        const active = who(moment, node).filter(each => each.isActive)
        expect(active.map(each => each.actions).sort()).toEqual(
          held.filter(each => each !== noActions).sort(),
        )
        expect(hasSteward(moment, placeOf(moment, node)!)).toBe(
          held.some(each => listActions(each).includes('share')),
        )
        for (const [index, id] of personIds.entries())
          expect(why(moment, id as unknown as PersonId, node)?.result).toBe(held[index])
      }
    }),
    { numRuns: 150 },
  )
})
