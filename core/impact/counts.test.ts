import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { PersonId } from '../base/ids.ts'
import { numberOf } from '../base/numbering.ts'
import { theWeb } from '../access/public.ts'
import { applyEdits } from '../changes/judge.ts'
import { momentOf } from '../state/moment.ts'
import { anyEdit, anyPolicy, anyStanding } from '../tests/edits.ts'
import { now } from '../tests/world.ts'
import { anyWorld, personIds } from '../tests/worlds.ts'
import { effectCounts, turnOf } from './counts.ts'
import { type Difference, differences } from './impact.ts'

const anyActs = fc.array(
  fc.oneof({ weight: 4, arbitrary: anyEdit }, { weight: 2, arbitrary: anyPolicy }, anyStanding),
  { minLength: 1, maxLength: 3 },
)

const hasMore = ({ before, after }: Difference) => (after & ~before) !== 0
const hasLess = ({ before, after }: Difference) => (before & ~after) !== 0
const places = (rows: readonly Difference[]) => rows.reduce((sum, each) => sum + each.nodes, 0)

test('what is counted is what the rows add up to: by person, by place, and by what it was and becomes', () => {
  let differing = 0
  fc.assert(
    fc.property(anyWorld, anyActs, fc.constantFrom(now, now + 6), (state, acts, at) => {
      const before = momentOf(state, at)
      const applied = applyEdits(
        before,
        acts.flatMap(act => act(state)),
      )
      if (applied === undefined) return
      const touching = { changes: applied.changes, before, after: momentOf(applied.state, at) }
      const rows = differences(touching)
      const counts = effectCounts(touching)
      differing += rows.length
      for (const id of personIds as unknown as PersonId[]) {
        const person = numberOf(applied.state.index.persons, id) as number
        const own = rows.filter(each => each.person === id)
        expect([id, counts.gains[person], counts.losses[person]]).toEqual([
          id,
          places(own.filter(hasMore)),
          places(own.filter(hasLess)),
        ])
      }
      const byPlace = new Map<string, [number, number, number]>()
      const turns = new Map<number, number>()
      for (const row of rows) {
        const [nodes, more, less] = byPlace.get(row.node) ?? [row.nodes, 0, 0]
        byPlace.set(row.node, [nodes, more + (hasMore(row) ? 1 : 0), less + (hasLess(row) ? 1 : 0)])
        const turn = turnOf(row.before, row.after)
        if (row.person !== theWeb) turns.set(turn, (turns.get(turn) ?? 0) + row.nodes)
      }
      expect(counts.pieces.map(each => [each.nodes, each.gaining, each.losing].join(' ')).sort()).toEqual(
        [...byPlace.values()].map(each => each.join(' ')).sort(),
      )
      expect(counts.turns).toEqual(turns)
    }),
    { numRuns: 1500 },
  )
  expect(differing).toBeGreaterThan(200)
})
