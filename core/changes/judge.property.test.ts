import fc from 'fast-check'
import { expect, test } from 'vitest'
import { check } from '../access/evaluate.ts'
import { allRows, rowOf } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { always } from '../base/instant.ts'
import type { Membership } from '../people/person.ts'
import type { TableName } from '../state/kinds.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { applyChanges, inverseOf, pathOf, type State } from '../state/state.ts'
import { judged } from '../tests/judge.ts'
import { edit, judging, steward } from '../tests/judging.ts'
import { grant, holding, now, person } from '../tests/world.ts'
import { anyEdit, anyPolicy, anyStanding } from '../tests/edits.ts'
import { anyWorld, nodeIds, personIds } from '../tests/worlds.ts'
import type { Edit } from './edit.ts'
import { undoingOf } from './undo.ts'

/** Random authors seldom may do anything: here two members are active, and some are stewards of some places. */
const anyBusyWorld = fc
  .tuple(
    anyWorld,
    fc.subarray(['owner', 'p0', 'p1'], { minLength: 1 }),
    fc.subarray([...nodeIds], { minLength: 3 }),
  )
  .map(([state, people, nodes]) =>
    [
      person('p0'),
      person('p1'),
      holding('p1', 'role-people-lead'),
      ...people.flatMap(id =>
        nodes.map(at => grant(at, `person:${id}`, steward, { id: `s ${at} ${id}` as never })),
      ),
    ].reduce(
      (so, { table, row }) =>
        applyChanges(so, [
          {
            table,
            id: row.id,
            before: null,
            after: row,
          } as never,
        ]),
      state,
    ),
  )

/** The owner oftener: of people and roles only the owner may do most. */
const authors = ['owner', 'owner', 'p0', 'p1'] as unknown as PersonId[]
const later = [now, now + 5, now + 15, now + 30]
const everybody = personIds as unknown as PersonId[]
const everywhere = nodeIds as unknown as NodeId[]

test('whatever is allowed raises nobody’s own access, leaves stewards where they were, and can be taken back', () => {
  const allowed = new Map<string, number>()
  const undone = { whole: 0, 'in part': 0 }
  fc.assert(
    fc.property(
      anyBusyWorld,
      fc.constantFrom(...authors),
      fc.array(
        fc.oneof({ weight: 4, arbitrary: anyEdit }, anyPolicy, { weight: 4, arbitrary: anyStanding }),
        {
          minLength: 1,
          maxLength: 2,
        },
      ),
      (state, author, drafts) => {
        const edits = drafts.flatMap(draft => draft(state))
        const result = judging(state, author, ...edits)
        if (!result.ok) return
        for (const { kind } of edits) allowed.set(kind, (allowed.get(kind) ?? 0) + 1)
        const changed = result.value.state
        const joined = afterJoining(state, author, edits)
        for (const at of later)
          for (const node of everywhere) {
            const held = (of: State) => judged(snapshotOf(of, at), author, node, { beforeStates: true })
            if (!isRecovering(edits)) expect(held(joined)).toEqual(expect.arrayContaining(held(changed)))
            const kept = (of: State) =>
              everybody.some(id => judged(snapshotOf(of, at), id, node).includes('share'))
            const isLasting = (at === now || at === now + 30) && !edits.some(each => leaving.has(each.kind))
            const isThere = rowOf(changed.nodes, node) !== undefined
            if (isLasting && isThere && node !== 'root' && kept(state) && !inBin(changed, node))
              expect(kept(changed)).toBe(true)
          }
        expectSame(applyChanges(changed, inverseOf(result.value.changes)), state)
        const { changes, leftOut } = undoingOf(changed, now, { ...result.value, revision: 1, written: [] })
        const isWhole = leftOut.length === 0
        if (isWhole) expectSame(applyChanges(changed, changes), state)
        undone[isWhole ? 'whole' : 'in part'] += 1
      },
    ),
    { numRuns: 4000 },
  )
  // In part only where an end that passed, or a place in the bin, stands against it.
  expect(undone.whole).toBeGreaterThan(5 * undone['in part'])
  expect([...allowed.keys()].sort()).toEqual([
    'access.recover',
    'grant.add',
    'grant.change',
    'grant.end',
    'level.change',
    'limit.add',
    'limit.change',
    'limit.end',
    'member.add',
    'member.change',
    'member.remove',
    'node.break',
    'node.delete',
    'node.duplicate',
    'node.move',
    'node.order',
    'node.restore',
    'node.state',
    'node.web',
    'person.convert',
    'person.end',
    'person.reactivate',
    'person.remove',
    'person.suspend',
    'role.assign',
    'role.unassign',
    'team.archive',
    'team.change',
    'workspace.change',
  ])
})

function expectSame(state: State, other: State): void {
  for (const table of Object.keys(state.kinds) as TableName[])
    expect(new Set<unknown>(allRows(state[table] as State['nodes']))).toEqual(
      new Set<unknown>(allRows(other[table] as State['nodes'])),
    )
}

/** Leaving is never refused for what one alone stewards. */
const leaving: ReadonlySet<string> = new Set(['person.suspend', 'person.remove', 'person.end'])

const isRecovering = (edits: readonly Edit[]): boolean => edits.some(each => each.kind === 'access.recover')

/** What an open team gives is open to the author anyway, whatever else is in the set. */
const afterJoining = (state: State, author: PersonId, edits: readonly Edit[]): State =>
  edits.reduce((so, edit) => {
    if (edit.kind !== 'member.add' || edit.person !== author || edit.lead) return so
    if (rowOf(state.teams, edit.team)?.joining !== 'open') return so
    const { membership: id, team, person } = edit
    const row: Membership = { id, team, person, lead: false, since: now, ...always }
    return applyChanges(so, [{ table: 'memberships', id, before: null, after: row }])
  }, state)

const inBin = (state: State, node: NodeId) => pathOf(state, node).some(each => each.binned !== null)

test('very many changes may be applied in parts: one after the other they come to the same', () => {
  fc.assert(
    fc.property(anyBusyWorld, fc.array(anyStanding, { minLength: 1, maxLength: 3 }), (state, drafts) => {
      const result = judging(state, 'owner', ...drafts.flatMap(draft => draft(state)))
      if (!result.ok) return
      const inParts = result.value.changes.reduce((so, change) => applyChanges(so, [change]), state)
      expectSame(inParts, result.value.state)
      for (const id of everybody)
        for (const node of everywhere)
          expect(check(snapshotOf(inParts, now), id, node)).toBe(
            check(snapshotOf(result.value.state, now), id, node),
          )
    }),
    { numRuns: 1500 },
  )
})

test('a break that keeps changes nobody’s access, now or later', () => {
  fc.assert(
    fc.property(
      anyBusyWorld,
      fc.constantFrom(...authors),
      fc.constantFrom(...everywhere),
      (state, author, node) => {
        const result = judging(state, author, edit('node.break', { node, mode: 'keep', copies: 'copy' }))
        if (!result.ok) return
        for (const at of later)
          for (const id of everybody)
            for (const each of everywhere)
              expect(judged(snapshotOf(result.value.state, at), id, each)).toEqual(
                judged(snapshotOf(state, at), id, each),
              )
      },
    ),
    { numRuns: 800 },
  )
})
