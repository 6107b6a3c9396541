import { describe, expect, test } from 'vitest'
import { mayUse } from '../../access/powers.ts'
import { rowOf } from '../../base/collection.ts'
import type { PersonId, RoleId } from '../../base/ids.ts'
import type { Privilege } from '../../levels/privilege.ts'
import { snapshotOf } from '../../state/snapshot.ts'
import type { State } from '../../state/state.ts'
import { after, edit, levelOf, refusal, steward } from '../judging.ts'
import { grant, holding, node, now, person, world, role } from '../world.ts'

/** Workspace roles: separate from content, and no way up through them. */

const cast = [
  person('admin'),
  holding('admin', 'role-administrator'),
  person('maker'),
  holding('maker', 'role-makers'),
  holding('maker', 'role-low'),
  role('makers', 50, 'edit roles', 'assign roles', 'invite members'),
  role('low', 10, 'security'),
  person('p'),
  holding('p', 'role-member'),
]
const state = world(...cast)
const making = (rank: number, ...privileges: Privilege[]) =>
  edit('role.create', {
    role: 'role-new',
    name: 'New',
    note: '',
    rank,
    privileges,
    addressable: false,
    seatExempt: false,
  })
const changing = (id: string, more: object) => edit('role.change', { role: `role-${id}`, ...more })

test('a role never opens content', () => {
  const owned = world(...cast, node('a', 'root'), grant('a', 'person:p', steward))
  expect([levelOf(owned, 'owner', 'a'), levelOf(owned, 'admin', 'a')]).toEqual(['No access', 'No access'])
})

describe('a role of one’s own', () => {
  test('is made below one’s rank, of privileges that one holds and no higher than one holds them', () => {
    expect(refusal(state, 'maker', making(49, 'invite members'))).toBe('allowed')
    expect(refusal(state, 'maker', making(50, 'invite members'))).toMatchObject({ code: 'outranked' })
    expect(refusal(state, 'maker', making(40, 'suspend'))).toEqual({
      code: 'privilege-missing',
      privilege: 'suspend',
    })
    expect(refusal(state, 'maker', making(10, 'security'))).toBe('allowed')
    expect(refusal(state, 'maker', making(40, 'security'))).toMatchObject({ code: 'outranked' })
    expect(refusal(state, 'p', making(1))).toMatchObject({ privilege: 'edit roles' })
    expect(refusal(state, 'owner', making(60, 'own'))).toEqual({ code: 'locked', what: 'ownership' })
  })

  test('brings along what its privileges need', () => {
    const made = after(state, 'owner', making(30, 'remove'))
    expect(rowOf(made.roles, 'role-new' as RoleId)?.privileges).toEqual(['view people', 'suspend', 'remove'])
  })

  test('is changed under the same rules: no added privilege and no rise of rank leads up', () => {
    const made = after(state, 'admin', making(30, 'edit settings'))
    expect(refusal(made, 'maker', changing('new', { name: 'N' }))).toBe('allowed')
    expect(refusal(made, 'maker', changing('new', { rank: 31 }))).toMatchObject({
      privilege: 'edit settings',
    })
    expect(refusal(made, 'maker', changing('new', { rank: 29 }))).toBe('allowed')
    const more: Privilege[] = ['edit settings', 'suspend']
    expect(refusal(made, 'maker', changing('new', { privileges: more }))).toMatchObject({
      privilege: 'suspend',
    })
    expect(refusal(made, 'maker', changing('makers', { name: 'N' }))).toMatchObject({ code: 'outranked' })
    expect(refusal(made, 'maker', changing('low', { rank: 40 }))).toMatchObject({ code: 'outranked' })
  })

  test('changes what its holders may do at once, and comes back when that is undone', () => {
    const may = (of: State) => mayUse(snapshotOf(of, now), 'maker' as PersonId, 'security')
    const id = 'role-low' as RoleId
    const less = after(state, 'owner', changing('low', { privileges: [] }))
    expect([may(state), may(less)]).toEqual([true, false])
    const change = { table: 'roles', id, before: rowOf(state.roles, id), after: rowOf(less.roles, id) }
    const undoing = edit('undo', { revision: 1, changes: [change], written: [] })
    expect(may(after(less, 'owner', undoing))).toBe(true)
    // By undoing one gives oneself nothing that one could not give otherwise.
    expect(refusal(less, 'maker', undoing)).toEqual({ code: 'privilege-missing', privilege: 'security' })
  })

  test('goes only when nobody holds it and it is not what new members get', () => {
    expect(refusal(state, 'owner', edit('role.delete', { role: 'role-low' }))).toEqual({
      code: 'in-use',
      what: 'role',
    })
    const made = after(state, 'owner', making(5))
    expect(refusal(made, 'owner', edit('role.delete', { role: 'role-new' }))).toBe('allowed')
    const first = after(made, 'owner', edit('workspace.change', { defaultRole: 'role-new' }))
    expect(refusal(first, 'owner', edit('role.delete', { role: 'role-new' }))).toMatchObject({
      code: 'in-use',
    })
    expect(refusal(made, 'owner', edit('workspace.change', { defaultRole: 'role-guest' }))).toMatchObject({
      what: 'role',
    })
    expect(refusal(made, 'admin', edit('workspace.change', { defaultRole: 'role-owner' }))).toMatchObject({
      code: 'outranked',
    })
  })
})

test('built-in roles are locked', () => {
  for (const each of ['owner', 'administrator', 'people-lead', 'member', 'guest']) {
    expect(refusal(state, 'owner', changing(each, { name: 'N' }))).toEqual({ code: 'locked', what: 'role' })
    expect(refusal(state, 'owner', edit('role.delete', { role: `role-${each}` }))).toMatchObject({
      code: 'locked',
    })
  }
})

test('a role is given no higher than its giver holds its privileges, over a scope that the giver has', () => {
  const giving = (id: string, scope: object = { over: 'workspace' }) =>
    edit('role.assign', { holding: 'new', person: 'p', role: `role-${id}`, scope, from: null, until: null })
  const higher = world(...cast, role('security', 30, 'security'))
  expect(refusal(higher, 'maker', giving('security'))).toMatchObject({ code: 'outranked' })
  const overGuests = world(
    ...cast,
    person('h'),
    person('g', { kind: 'guest' }),
    holding('h', 'role-makers', { over: 'guests' }),
    role('inviter', 20, 'invite members'),
  )
  expect(refusal(overGuests, 'h', giving('inviter', { over: 'guests' }))).toMatchObject({ code: 'unknown' })
  expect(refusal(overGuests, 'maker', giving('inviter'))).toBe('allowed')
})
