import fc from 'fast-check'
import { expect, test } from 'vitest'
import { allRows, rowOf } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { pathOf, type State } from '../state/state.ts'
import { anyEdit, anyPolicy, anyStanding } from '../tests/edits.ts'
import { wrongIn } from '../tests/judge-sets.ts'
import { edit, steward } from '../tests/judging.ts'
import { grant, holding, now, person, role } from '../tests/world.ts'
import { anyWorld, nodeIds } from '../tests/worlds.ts'
import type { Edit } from './edit.ts'
import { judge } from './judge.ts'
import { applyChanges } from '../state/state.ts'

/** Authors of every kind: one with everything, one who keeps security, one who manages teams, one with nothing but places. */
const authors = ['owner', 'owner', 'p0', 'p1', 'p2'] as unknown as PersonId[]

const anyBusyWorld = fc
  .tuple(
    anyWorld,
    fc.subarray([...authors.slice(1)], { minLength: 1 }),
    fc.subarray([...nodeIds], { minLength: 3 }),
  )
  .map(([state, people, nodes]) =>
    applyChanges(
      state,
      [
        ...authors.slice(2).map(id => person(id)),
        role('security', 70, 'security', 'recover access', 'see the outline', 'suspend', 'remove'),
        holding('p0', 'role-security'),
        role('teams', 60, 'manage any team', 'invite members', 'edit settings', 'assign roles'),
        holding('p1', 'role-teams'),
        ...people.flatMap(id =>
          nodes.map(at => grant(at, `person:${id}`, steward, { id: `s ${at} ${id}` as never })),
        ),
      ].map(({ table, row }) => {
        const before = rowOf(state[table] as State['nodes'], row.id as NodeId) ?? null
        return { table, id: row.id, before, after: row } as never
      }),
    ),
  )

const anyDraft = fc.array(
  fc.oneof(
    { weight: 3, arbitrary: anyEdit },
    { weight: 2, arbitrary: anyPolicy },
    { weight: 4, arbitrary: anyStanding },
  ),
  { minLength: 1, maxLength: 3 },
)

/** A few acts by whoever; one of them, later, taken back by whoever. */
const anyStory = fc.record({
  state: anyBusyWorld,
  acts: fc.array(fc.record({ author: fc.constantFrom(...authors), drafts: anyDraft, anew: fc.nat() }), {
    minLength: 2,
    maxLength: 6,
  }),
  undone: fc.nat(5),
  undoer: fc.constantFrom(...authors),
})

test('whatever is allowed, undoing included, is right by the contract', { timeout: 240_000 }, () => {
  const seen = { allowed: 0, undone: 0, recovered: 0 }
  fc.assert(
    fc.property(anyStory, ({ state: first, acts, undone, undoer }) => {
      let state = first
      const sets: Edit[] = []
      const act = (author: PersonId, edits: readonly Edit[]) => {
        const before = snapshotOf(state, now)
        const result = judge(before, { author, reason: '', edits })
        if (!result.ok || edits.length === 0) return false
        const after = snapshotOf(result.value.state, now)
        expect(wrongIn({ author, edits, before, after })).toEqual([])
        seen.allowed += 1
        if (edits.some(each => each.kind === 'access.recover')) seen.recovered += 1
        sets.push(edit('undo', { revision: 1, changes: result.value.changes, written: [] }))
        state = result.value.state
        return true
      }
      for (const { author, drafts, anew } of acts)
        act(
          author,
          drafts.flatMap(draft => draft(state)).map(each => renamed(each, anew)),
        )
      const back = sets[undone]
      if (back !== undefined && act(undoer, [back])) seen.undone += 1
      for (const { id } of allRows(state.nodes)) expect(pathOf(state, id).at(-1)?.id).toBe('root')
    }),
    { numRuns: 4000 },
  )
  expect(Math.min(...Object.values(seen))).toBeGreaterThan(15)
})

/** What several acts make has an id of its own in each. */
function renamed(each: Edit, anew: number): Edit {
  const fields = Object.entries(each).map(([name, value]: [string, unknown]) => [
    name,
    ['grant', 'limit', 'membership', 'holding', 'copies'].includes(name) && isMade(each)
      ? `${String(value)} ${anew}`
      : value,
  ])
  return Object.fromEntries(fields) as Edit
}

const isMade = ({ kind }: Edit): boolean =>
  [
    'grant.add',
    'limit.add',
    'member.add',
    'role.assign',
    'node.break',
    'node.duplicate',
    'access.recover',
  ].includes(kind)
