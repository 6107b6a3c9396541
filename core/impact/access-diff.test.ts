import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { NodeId, PersonId } from '../base/ids.ts'
import { numberOf } from '../base/numbering.ts'
import { theWeb } from '../access/public.ts'
import { applyEdits } from '../changes/judge.ts'
import { affectedScopeOf } from '../changes/affected-scope.ts'
import type { Action } from '../levels/action.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { applyChanges, type Snapshot, pathOf, rootOf } from '../state/state.ts'
import { anyEdit, anyPolicy, anyStanding } from '../tests/edits.ts'
import { judged } from '../tests/judge.ts'
import { steward } from '../tests/judging.ts'
import { grant, now } from '../tests/world.ts'
import { anyWorld, nodeIds, personIds } from '../tests/worlds.ts'
import { accessDiffOf, turnOf } from '../access/access-diff.ts'
import { diffQueryOf, differences, impact } from './impact.ts'
import type { Difference } from '../access/diff-rows.ts'

const anyActs = fc.array(
  fc.oneof({ weight: 4, arbitrary: anyEdit }, { weight: 2, arbitrary: anyPolicy }, anyStanding),
  { minLength: 1, maxLength: 3 },
)

const anyNode = fc.constantFrom(...nodeIds)

const hasMore = ({ before, after }: Difference) => (after & ~before) !== 0
const hasLess = ({ before, after }: Difference) => (before & ~after) !== 0
const places = (rows: readonly Difference[]) => rows.reduce((sum, each) => sum + each.nodes, 0)

test('what is counted is what the rows add up to: by person, by place, and by what it was and becomes', () => {
  let differing = 0
  fc.assert(
    fc.property(anyWorld, anyActs, fc.constantFrom(now, now + 6), (state, acts, at) => {
      const before = snapshotOf(state, at)
      const applied = applyEdits(
        before,
        acts.flatMap(act => act(state)),
      )
      if (applied === undefined) return
      const transition = { changes: applied.changes, before, after: snapshotOf(applied.state, at) }
      const rows = differences(transition)
      const query = diffQueryOf(affectedScopeOf(transition), transition)
      const counts = accessDiffOf({ ...query, mostRows: 0 })
      expect(counts.rows === null).toBe(rows.length > 0)
      differing += rows.length
      for (const id of personIds as unknown as PersonId[]) {
        const place = query.people.indexOf(numberOf(applied.state.index.persons, id) as number)
        const own = rows.filter(each => each.person === id)
        expect([id, counts.gains[place] ?? 0, counts.losses[place] ?? 0]).toEqual([
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
      const bySegment = counts.segments.flatMap(({ nodes, gaining, losing, web }) =>
        Array<string>(nodes).fill([1, gaining + (web > 0 ? 1 : 0), losing + (web < 0 ? 1 : 0)].join(' ')),
      )
      expect(bySegment.sort()).toEqual([...byPlace.values()].map(each => each.join(' ')).sort())
      expect(counts.turns).toEqual(turns)
    }),
    { numRuns: 1500 },
  )
  expect(differing).toBeGreaterThan(200)
})

test('somebody is told of their own, of all where they give access, and how many places they give access above', () => {
  const own = { shown: 0, hidden: 0 }
  fc.assert(
    fc.property(anyWorld, anyActs, fc.constantFrom(...personIds), anyNode, (base, acts, person, at) => {
      const asker = person as unknown as PersonId
      const { table, row } = grant(at, `person:${person}`, steward, { id: 'steward' as never })
      const state = applyChanges(base, [{ table, id: row.id, before: null, after: row } as never])
      const before = snapshotOf(state, now)
      const applied = applyEdits(
        before,
        acts.flatMap(act => act(state)),
      )
      if (applied === undefined) return
      const after = snapshotOf(applied.state, now)
      const [shown] = impact({ changes: applied.changes, before, after }, asker)
      const all = differences({ changes: applied.changes, before, after })
      const may = (action: Action, node: NodeId, ...snapshots: Snapshot[]) =>
        snapshots.some(snapshot => (judged(snapshot, asker, node) as readonly string[]).includes(action))
      const root = rootOf(state).id
      const sees = ({ node }: Difference) => may('see', node, before, after)
      const known = all.filter(
        each =>
          each.node !== root &&
          sees(each) &&
          (each.person === asker || may('share', each.node, before, after)),
      )
      expect(shown?.differences.map(each => JSON.stringify(each)).sort()).toEqual(
        known.map(each => JSON.stringify(each)).sort(),
      )
      const hidden = new Set(
        all
          .filter(each => !sees(each))
          .map(each => each.node)
          .filter(node => pathOf(state, node).some(above => may('share', above.id, before))),
      )
      expect(shown?.hiddenPlaces).toBe(hidden.size)
      own.shown += shown?.differences.length ?? 0
      own.hidden += hidden.size
    }),
    { numRuns: 1500 },
  )
  expect(own.shown).toBeGreaterThan(100)
  expect(own.hidden).toBeGreaterThan(0)
})
