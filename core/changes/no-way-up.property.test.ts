import fc from 'fast-check'
import { expect, test } from 'vitest'
import { powersOf } from '../access/powers.ts'
import { allRows } from '../base/collection.ts'
import type { HoldingId, PersonId, RoleId, TeamId } from '../base/ids.ts'
import { always } from '../base/instant.ts'
import type { Privilege } from '../levels/privilege.ts'
import type { Scope } from '../people/person.ts'
import { snapshotOf } from '../state/snapshot.ts'
import type { State } from '../state/state.ts'
import { edit, judging } from '../tests/judging.ts'
import { member, now, type Part, person, role, team, world } from '../tests/world.ts'
import type { Edit } from './edit.ts'

/** Whatever somebody who is no Owner does about roles, nobody comes to more by it than they had themselves. */

const scopes: readonly Scope[] = [{ over: 'workspace' }, { over: 'team', team: 't' as TeamId }]
const people = ['a', 'b', 'c'] as const
const roleNames = ['x', 'y', 'z'] as const
const some = [
  'view people',
  'invite members',
  'suspend',
  'assign roles',
  'edit roles',
  'edit settings',
  'security',
  'moderate',
] as const satisfies readonly Privilege[]

const anyPrivileges = fc.subarray<Privilege>([...some])
const anyRank = fc.integer({ min: 1, max: 60 })
const anyRoleId = fc.constantFrom(...roleNames.map(name => `role-${name}`), 'role-people-lead', 'role-owner')
const anyScope = fc.constantFrom(...scopes)
const anyPerson = fc.constantFrom(...people)

/** The author rather often has what it takes to do something. */
const anyRoles = fc
  .tuple(
    ...roleNames.map(() => fc.record({ rank: anyRank, held: anyPrivileges })),
    fc.record({ rank: fc.integer({ min: 30, max: 60 }), held: anyPrivileges }),
  )
  .map(all =>
    all.map(({ rank, held }, index) =>
      role(
        roleNames[index] ?? 'author',
        rank,
        ...held,
        ...(roleNames[index] ? [] : (['assign roles', 'edit roles', 'invite members'] as const)),
      ),
    ),
  )

const held = (who: string, id: string, scope: Scope): Part => ({
  table: 'holdings',
  row: {
    id: `${who} ${id} ${scope.over}` as HoldingId,
    person: who as PersonId,
    role: id as RoleId,
    scope,
    ...always,
  },
})

const anyState = fc
  .record({
    roles: anyRoles,
    holdings: fc.uniqueArray(
      fc.record({
        who: anyPerson,
        id: fc.constantFrom(...roleNames.map(name => `role-${name}`)),
        scope: anyScope,
      }),
      { maxLength: 4, selector: each => JSON.stringify(each) },
    ),
    authorOver: anyScope,
  })
  .map(({ roles, holdings, authorOver }) =>
    world(
      team('t'),
      ...people.map(each => person(each)),
      ...people.map(each => member('t', each)),
      ...roles,
      held('a', 'role-author', authorOver),
      ...holdings.map(({ who, id, scope }) => held(who, id, scope)),
    ),
  )

const anyEdit: fc.Arbitrary<(state: State) => Edit[]> = fc.oneof(
  fc
    .record({ name: fc.constant('New'), rank: anyRank, privileges: anyPrivileges })
    .map(fields => () => [
      edit('role.create', { ...fields, role: 'role-new', note: '', addressable: false, seatExempt: false }),
    ]),
  fc
    .record({
      role: anyRoleId,
      rank: fc.option(anyRank, { nil: undefined }),
      privileges: fc.option(anyPrivileges, { nil: undefined }),
    })
    .map(fields => () => [edit('role.change', fields)]),
  fc
    .record({ person: anyPerson, role: fc.oneof(anyRoleId, fc.constant('role-new')), scope: anyScope })
    .map(fields => () => [edit('role.assign', { ...fields, holding: 'given', ...always })]),
  fc.nat(6).map(
    index => (state: State) =>
      allRows(state.holdings)
        .slice(index, index + 1)
        .map(({ id }) => edit('role.unassign', { holding: id })),
  ),
  anyRoleId.map(defaultRole => () => [edit('workspace.change', { defaultRole })]),
  fc.option(anyRoleId, { nil: null }).map(id => () => [
    edit('person.invite', {
      person: 'second',
      invitation: 'i',
      holding: 'h',
      mail: 'second@test.example',
      name: '',
      as: 'member',
      role: id,
      scope: { over: 'workspace' },
      until: null,
      linkUntil: now + 9,
      message: '',
    }),
    edit('invitation.accept', { person: 'second', account: 'acc', name: 'Second', folder: 'f', grant: 'g' }),
  ]),
)

/** What somebody may do, over each scope, the whole workspace covering all. */
function powers(state: State, who: string): Set<string> {
  const found = new Set<string>()
  for (const { privileges, scope } of powersOf(snapshotOf(state, now), who as PersonId))
    for (const privilege of privileges)
      for (const over of scopes)
        if (scope.over === 'workspace' || JSON.stringify(scope) === JSON.stringify(over))
          found.add(`${privilege} over ${over.over}`)
  return found
}

test('by no row of acts about roles does anybody come to more than their author had', () => {
  let done = 0
  let gained = 0
  fc.assert(
    fc.property(anyState, fc.array(anyEdit, { minLength: 1, maxLength: 5 }), (start, drafts) => {
      const had = powers(start, 'a')
      const before = new Map([...people, 'second'].map(each => [each, powers(start, each)]))
      const usual = powers(world(person('m'), held('m', 'role-member', { over: 'workspace' })), 'm')
      let state = start
      for (const draft of drafts)
        for (const each of draft(state)) {
          // The invited accepts; all else is the author's.
          const result = judging(state, each.kind === 'invitation.accept' ? 'second' : 'a', each)
          if (result.ok) state = result.value.state
          done += result.ok ? 1 : 0
        }
      for (const [who, held] of before)
        for (const power of powers(state, who)) {
          if (held.has(power) || (who === 'second' && usual.has(power))) continue
          gained += 1
          expect([who, power, had.has(power)]).toEqual([who, power, true])
        }
    }),
    { numRuns: 3000 },
  )
  expect([done > 500, gained > 50]).toEqual([true, true])
})
