import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { HoldingId, PersonId, RoleId, TeamId } from '../base/ids.ts'
import { isLive } from '../base/instant.ts'
import { allRows, rowOf } from '../base/collection.ts'
import { allPrivileges, type Privilege } from '../levels/privilege.ts'
import type { Scope } from '../people/person.ts'
import { proposedOf } from '../changes/judge.ts'
import { snapshotOf } from '../state/snapshot.ts'
import type { State } from '../state/state.ts'
import { edit, judging } from '../tests/judging.ts'
import { now, person, role, team, world } from '../tests/world.ts'
import { impact } from './impact.ts'

/** What people may do in the workspace by a change set, against a plain reading of the holdings. */

const people = ['owner', 'p', 'q'] as const
const roleIds = ['role-a', 'role-b'] as const
const scopes: readonly Scope[] = [
  { over: 'workspace' },
  { over: 'guests' },
  { over: 'team', team: 't' as TeamId },
  { over: 'team', team: 'u' as TeamId },
]
/** Those that mean something over some people, and some that do not. */
const some = ['view people', 'suspend', 'assign roles', 'invite guests', 'moderate', 'security'] as const

const anySpan = fc.record({
  from: fc.constantFrom(null, null, now + 3),
  until: fc.constantFrom(null, null, now + 7),
})
const anyRole = (name: string) =>
  fc
    .record({ privileges: fc.subarray<Privilege>([...some]), rank: fc.integer({ min: 1, max: 50 }) })
    .map(({ rank, privileges }) => role(name, rank, ...privileges))
const anyHolding = fc
  .record({
    person: fc.constantFrom('p', 'q'),
    role: fc.constantFrom(...roleIds),
    scope: fc.constantFrom(...scopes),
    span: anySpan,
  })
  .map(({ person, role, scope, span }) => {
    const id = `${person} ${role} ${JSON.stringify(scope)}` as HoldingId
    const row = { id, person: person as PersonId, role: role as RoleId, scope, ...span }
    return { table: 'holdings', row } as const
  })
const anyStatus = fc.constantFrom('active', 'active', 'invited', 'suspended')
const anyState = fc
  .tuple(anyRole('a'), anyRole('b'), fc.array(anyHolding, { maxLength: 5 }), anyStatus, anyStatus)
  .map(([a, b, holdings, p, q]) => {
    const unique = new Map(holdings.map(each => [each.row.id as string, each]))
    const standing = (id: string, status: string) => person(id, { status: status as 'active' })
    return world(team('t'), team('u'), a, b, standing('p', p), standing('q', q), ...unique.values())
  })

const nth = fc.nat(5)
const anyDraft = fc.oneof(
  fc
    .record({
      who: fc.constantFrom('p', 'q'),
      role: fc.constantFrom(...roleIds),
      scope: fc.constantFrom(...scopes),
      span: anySpan,
    })
    .map(({ who, role, scope, span }) => () => [
      edit('role.assign', { holding: 'new', person: who, role, scope, ...span }),
    ]),
  nth.map(
    index => (state: State) =>
      allRows(state.holdings)
        .filter(each => each.person !== 'owner')
        .slice(index, index + 1)
        .map(each => edit('role.unassign', { holding: each.id })),
  ),
  fc
    .record({
      role: fc.constantFrom(...roleIds),
      privileges: fc.subarray<Privilege>([...some]),
      rank: fc.integer({ min: 1, max: 50 }),
    })
    .map(fields => () => [edit('role.change', fields)]),
  fc.constantFrom('p', 'q').map(who => (state: State) => {
    const status = rowOf(state.persons, who as PersonId)?.status
    return status === 'active'
      ? [edit('person.suspend', { person: who })]
      : [edit('person.reactivate', { person: who })]
  }),
)

const sleeps: Readonly<Record<string, readonly string[]>> = {
  'view people': [],
  suspend: [],
  'assign roles': ['guests'],
  'invite guests': ['team'],
}
const needs: Readonly<Record<string, readonly string[]>> = {
  suspend: ['view people'],
  'assign roles': ['view people', 'view roles'],
  'invite guests': ['view people'],
}

/** Read from the contract: by some live holding, over that scope or the whole workspace, where it does not sleep. */
function may(state: State, at: number, who: string, privilege: string, scope: Scope): boolean {
  const row = rowOf(state.persons, who as PersonId)
  if (row === undefined || row.status === 'suspended' || row.status === 'removed') return false
  return allRows(state.holdings).some(holding => {
    if (holding.person !== who || !isLive(holding, at)) return false
    const role = rowOf(state.roles, holding.role)
    const held = role?.privileges ?? []
    const isHeld = held.some(each => each === privilege || needs[each]?.includes(privilege) === true)
    const isAwake =
      holding.scope.over === 'workspace' || sleeps[privilege]?.includes(holding.scope.over) === false
    const covers =
      holding.scope.over === 'workspace' || JSON.stringify(holding.scope) === JSON.stringify(scope)
    return isHeld && isAwake && covers
  })
}

test('tells just what people may do more and no longer, over whom, now and later', () => {
  let count = 0
  fc.assert(
    fc.property(anyState, fc.array(anyDraft, { minLength: 1, maxLength: 3 }), (state, drafts) => {
      const edits = drafts.flatMap((draft, index) =>
        draft(state).map(each =>
          each.kind === 'role.assign' ? { ...each, holding: `new ${index}` as HoldingId } : each,
        ),
      )
      const result = edits.length === 0 ? undefined : judging(state, 'owner', ...edits)
      if (result?.ok !== true) return
      const set = { author: 'owner' as PersonId, reason: '', edits }
      const effects = impact(proposedOf(snapshotOf(state, now), set, result.value))
      for (const at of [now, now + 3, now + 5, now + 7, now + 9]) {
        const inForce = effects.findLast(each => each.at <= at)?.powers ?? []
        const inImpact = inForce.flatMap(({ person: who, parts }) =>
          parts.flatMap(({ scope, gains, loses }) => [
            ...gains.map(each => `${who} gains ${each} ${JSON.stringify(scope)}`),
            ...loses.map(each => `${who} loses ${each} ${JSON.stringify(scope)}`),
          ]),
        )
        const differing = differencesOf(state, result.value.state, at)
        count += differing.length
        expect(inImpact.sort()).toEqual(differing.sort())
      }
    }),
    { numRuns: 800 },
  )
  expect(count).toBeGreaterThan(200)
})

/** What is so over the whole workspace is told of that alone. */
const differencesOf = (was: State, will: State, at: number): string[] =>
  people.flatMap(who =>
    scopes.flatMap(scope =>
      allPrivileges.flatMap(privilege => {
        const before = may(was, at, who, privilege, scope)
        const after = may(will, at, who, privilege, scope)
        if (before === after) return []
        const inAll =
          scope.over !== 'workspace' && may(after ? will : was, at, who, privilege, scopes[0] as Scope)
        const verb = after ? 'gains' : 'loses'
        return inAll ? [] : [`${who} ${verb} ${privilege} ${JSON.stringify(scope)}`]
      }),
    ),
  )
