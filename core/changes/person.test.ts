import { describe, expect, test } from 'vitest'
import { mayUse } from '../access/powers.ts'
import { rowOf } from '../base/collection.ts'
import type { HoldingId, PersonId } from '../base/ids.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { after, edit, refusal, steward } from '../tests/judging.ts'
import { grant, holding, node, now, person, world } from '../tests/world.ts'

const state = world(
  person('admin'),
  holding('admin', 'role-administrator'),
  person('lead'),
  holding('lead', 'role-people-lead'),
  person('plain'),
  holding('plain', 'role-member'),
  person('guest', { kind: 'guest' }),
  holding('guest', 'role-guest'),
)

const giving = (to: string, role: string, more: object = {}) =>
  edit('role.assign', {
    holding: `${to} new`,
    person: to,
    role,
    scope: { over: 'workspace' },
    from: null,
    until: null,
    ...more,
  })

describe('roles', () => {
  test('are given below one’s own rank, to people below it, and no privilege that one lacks', () => {
    expect(refusal(state, 'admin', giving('plain', 'role-people-lead'))).toBe('allowed')
    expect(refusal(state, 'admin', giving('plain', 'role-administrator'))).toMatchObject({
      code: 'outranked',
    })
    expect(refusal(state, 'admin', giving('owner', 'role-member'))).toMatchObject({ code: 'outranked' })
    expect(refusal(state, 'lead', giving('plain', 'role-member'))).toMatchObject({
      privilege: 'assign roles',
    })
    expect(refusal(state, 'plain', giving('plain', 'role-people-lead'))).toMatchObject({
      code: 'privilege-missing',
    })
    expect(refusal(state, 'owner', giving('plain', 'role-owner'))).toBe('allowed')
  })

  test('a guest holds Guest and no other, and nobody the same twice', () => {
    expect(refusal(state, 'owner', giving('guest', 'role-member'))).toMatchObject({ code: 'guest-rule' })
    expect(refusal(state, 'owner', giving('plain', 'role-member'))).toMatchObject({ code: 'already-there' })
    expect(refusal(state, 'owner', giving('plain', 'nothing'))).toMatchObject({
      code: 'unknown',
      what: 'role',
    })
    const scope = { over: 'team', team: 'nothing' }
    expect(refusal(state, 'owner', giving('plain', 'role-people-lead', { scope }))).toMatchObject({
      what: 'team',
    })
  })

  test('count from the moment they are given until they are taken, and one’s own is given up freely', () => {
    const may = (of: typeof state) => mayUse(snapshotOf(of, now), 'plain' as PersonId, 'invite members')
    const given = after(state, 'admin', giving('plain', 'role-people-lead'))
    expect([may(state), may(given)]).toEqual([false, true])
    const taking = edit('role.unassign', { holding: 'plain new' })
    expect(refusal(given, 'lead', taking)).toMatchObject({ privilege: 'assign roles' })
    expect(may(after(given, 'admin', taking))).toBe(false)
    expect(may(after(given, 'plain', taking))).toBe(false)
    expect(refusal(state, 'owner', edit('role.unassign', { holding: 'owner role-owner' }))).toEqual({
      code: 'no-owner-left',
    })
  })
})

describe('a person', () => {
  test('is called as they wish, or as who edits profiles of those below writes it', () => {
    const naming = (name: string) => edit('person.describe', { person: 'plain', name })
    expect(rowOf(after(state, 'plain', naming('Me')).persons, 'plain' as PersonId)?.name).toBe('Me')
    expect(refusal(state, 'lead', naming('You'))).toBe('allowed')
    expect(refusal(state, 'lead', edit('person.describe', { person: 'admin', title: 'x' }))).toMatchObject({
      code: 'outranked',
    })
    expect(refusal(state, 'guest', naming('You'))).toMatchObject({ code: 'unknown' })
  })

  test('ends by whoever may suspend, even where they alone steward', () => {
    const alone = after(
      world(person('plain'), node('n', 'root'), grant('n', 'person:plain', steward)),
      'owner',
      edit('person.end', { person: 'plain', until: now + 5 }),
    )
    expect(rowOf(alone.persons, 'plain' as PersonId)?.until).toBe(now + 5)
    expect(refusal(state, 'plain', edit('person.end', { person: 'plain', until: now + 5 }))).toMatchObject({
      privilege: 'suspend',
    })
    expect(refusal(state, 'owner', edit('person.end', { person: 'plain', until: now }))).toEqual({
      code: 'end-in-past',
    })
    const ownEnd = edit('person.end', { person: 'owner', until: now + 5 })
    expect(refusal(state, 'owner', ownEnd)).toEqual({ code: 'no-owner-left' })
  })
})

test('an owner’s role is not undone into nothing, and a role that was taken comes back by who may give it', () => {
  const taken = after(state, 'admin', edit('role.unassign', { holding: 'plain role-member' }))
  const change = { table: 'holdings', id: 'plain role-member' as HoldingId } as const
  const before = rowOf(state.holdings, change.id) ?? null
  const back = edit('undo', { revision: 1, changes: [{ ...change, before, after: null }], written: [] })
  expect(refusal(taken, 'lead', back)).toMatchObject({ privilege: 'assign roles' })
  expect(refusal(taken, 'admin', back)).toBe('allowed')
})
