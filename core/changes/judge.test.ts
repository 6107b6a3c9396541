import { describe, expect, test } from 'vitest'
import { check } from '../access/evaluate.ts'
import { rowOf } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { levelActions } from '../levels/level.ts'
import type { TableName } from '../state/kinds.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { judge } from './judge.ts'
import { privateFolderOf } from '../state/state.ts'
import { after, edit, editor, giving, reader, refusal, steward } from '../tests/judging.ts'
import { broken, grant, holding, member, node, now, type Part, person, team, world } from '../tests/world.ts'

const inviting = (more: object = {}) =>
  edit('person.invite', {
    person: 'new',
    invitation: 'i',
    holding: 'h',
    mail: 'new@test.example',
    name: '',
    as: 'member',
    role: null,
    scope: { over: 'workspace' },
    until: null,
    linkUntil: now + 100,
    message: '',
    ...more,
  })

const accepting = edit('invitation.accept', {
  person: 'new',
  account: 'a',
  name: 'Newcomer',
  folder: 'f',
  grant: 'fg',
})
describe('inviting', () => {
  const staff = [
    person('lead'),
    holding('lead', 'role-people-lead'),
    person('plain'),
    holding('plain', 'role-member'),
  ]

  test('needs the privilege for that kind of person', () => {
    expect(refusal(world(...staff), 'lead', inviting())).toBe('allowed')
    expect(refusal(world(...staff), 'plain', inviting())).toEqual({
      code: 'privilege-missing',
      privilege: 'invite members',
    })
    expect(refusal(world(...staff), 'plain', inviting({ as: 'guest' }))).toMatchObject({
      privilege: 'invite guests',
    })
  })

  test('offers no role at or above one’s own, and none to a guest', () => {
    const admin = [person('admin'), holding('admin', 'role-administrator')]
    expect(refusal(world(...admin), 'admin', inviting({ role: 'role-people-lead' }))).toBe('allowed')
    expect(refusal(world(...admin), 'admin', inviting({ role: 'role-administrator' }))).toMatchObject({
      code: 'outranked',
    })
    expect(refusal(world(...admin), 'owner', inviting({ role: 'role-owner' }))).toBe('allowed')
    expect(refusal(world(), 'owner', inviting({ as: 'guest', role: 'role-people-lead' }))).toMatchObject({
      rule: 'no role',
    })
  })

  test('reaches an address once, and no day that has passed', () => {
    const invited = after(world(), 'owner', inviting())
    expect(refusal(invited, 'owner', inviting({ person: 'other', mail: 'NEW@test.example' }))).toMatchObject({
      code: 'already-there',
    })
    expect(refusal(world(), 'owner', inviting({ until: now }))).toEqual({ code: 'end-in-past' })
  })

  test('gives nothing before it is accepted, by the invited alone, in time', () => {
    const invited = after(
      world(node('a', 'root'), grant('a', 'person:owner', steward)),
      'owner',
      inviting(),
      giving('a', 'person:new', reader),
    )
    expect(check(snapshotOf(invited, now), 'new' as PersonId, 'a' as NodeId)).toBe(0)
    expect(refusal(invited, 'owner', accepting)).toMatchObject({ code: 'unknown' })
    const late = judge(snapshotOf(invited, now + 100), {
      author: 'new' as PersonId,
      reason: '',
      edits: [accepting],
    })
    expect(late).toMatchObject({ ok: false, error: { refusal: { code: 'invitation-over' } } })
    const here = after(invited, 'new', accepting)
    expect(check(snapshotOf(here, now), 'new' as PersonId, 'a' as NodeId)).toBe(reader)
    expect(refusal(here, 'new', accepting)).toMatchObject({ code: 'unknown' })
  })

  test('a member gets a private folder that nobody else sees, a guest none', () => {
    const root = grant('root', 'everyone', steward)
    const here = after(after(world(root), 'owner', inviting()), 'new', accepting)
    const folder = privateFolderOf(here, 'new' as PersonId)?.id as NodeId
    expect(check(snapshotOf(here, now), 'new' as PersonId, folder)).toBe(steward)
    expect(check(snapshotOf(here, now), 'owner' as PersonId, folder)).toBe(0)
    const guest = after(after(world(), 'owner', inviting({ as: 'guest' })), 'new', accepting)
    expect(privateFolderOf(guest, 'new' as PersonId)).toBeUndefined()
  })

  test('taken back, leaves nothing of what was offered', () => {
    const start = world(node('a', 'root'), grant('a', 'person:owner', steward), team('t'))
    const invited = after(
      start,
      'owner',
      inviting(),
      edit('member.add', { membership: 'm', team: 't', person: 'new', lead: false, from: null, until: null }),
      giving('a', 'person:new', reader),
    )
    const back = after(invited, 'owner', edit('invitation.withdraw', { person: 'new' }))
    for (const table of Object.keys(start.kinds) as TableName[])
      expect(back[table].size).toBe(start[table].size)
  })
})

describe('teams', () => {
  const creating = edit('team.create', {
    team: 't',
    home: 'h',
    name: 'T',
    note: '',
    joining: 'request',
    welcomesGuests: false,
  })
  const joined = (who: string, lead: boolean) =>
    edit('member.add', { membership: `t ${who}`, team: 't', person: who, lead, from: null, until: null })
  const levels = [giving('h', 'leads:t', steward), giving('h', 'team:t', levelActions('Adder'))]

  test('come with a home that has a steward, or not at all', () => {
    const made = after(world(person('p')), 'owner', creating, joined('p', true), ...levels)
    expect(check(snapshotOf(made, now), 'p' as PersonId, 'h' as NodeId)).toBe(steward)
    expect(refusal(world(person('p')), 'owner', creating, ...levels)).toMatchObject({
      code: 'no-steward-left',
      nodes: ['h'],
      when: 'now',
    })
    const invited = person('p', { status: 'invited' })
    expect(refusal(world(invited), 'owner', creating, joined('p', true), ...levels)).toMatchObject({
      code: 'no-steward-left',
    })
    expect(refusal(world(person('p')), 'p', creating)).toMatchObject({ privilege: 'create teams' })
  })

  const home = { home: { of: 'team', team: 't' as never } } as const
  const standing = [
    team('t'),
    person('l'),
    member('t', 'l', { lead: true }),
    person('p'),
    node('h', 'root', home),
    grant('h', 'leads:t', steward),
    grant('h', 'team:t', editor),
  ]

  test('are filled by their leads; the last lead does not go', () => {
    expect(refusal(world(...standing), 'p', joined('p', false))).toEqual({ code: 'lead-missing', team: 't' })
    expect(refusal(world(...standing), 'l', joined('p', false))).toBe('allowed')
    expect(refusal(world(...standing), 'l', edit('member.remove', { team: 't', person: 'l' }))).toMatchObject(
      {
        code: 'no-steward-left',
      },
    )
    expect(refusal(world(...standing), 'l', joined('l', false))).toMatchObject({ code: 'already-there' })
  })

  test('that are open are joined by members; nobody raises themselves through another', () => {
    const open = [...standing.slice(1), team('t', { joining: 'open' })]
    expect(refusal(world(...open), 'p', joined('p', false))).toBe('allowed')
    expect(refusal(world(...open), 'p', joined('p', true))).toEqual({ code: 'lead-missing', team: 't' })
    expect(refusal(world(...standing), 'owner', joined('owner', false))).toMatchObject({
      code: 'own-raise',
      nodes: ['h'],
    })
    const unlisted = [...standing.slice(1), team('t', { joining: 'unlisted' })]
    expect(refusal(world(...unlisted), 'p', joined('p', false))).toEqual({ code: 'unknown', what: 'team' })
  })

  test('take guests only where they are welcome, and never as leads', () => {
    const guest = person('g', { kind: 'guest' })
    const welcoming = world(
      ...standing.slice(1),
      team('t', { welcomesGuests: true }),
      guest,
      member('t', 'g'),
    )
    expect(refusal(world(...standing, guest), 'l', joined('g', false))).toMatchObject({ rule: 'not welcome' })
    expect(
      refusal(welcoming, 'l', edit('member.change', { team: 't', person: 'g', lead: true })),
    ).toMatchObject({ rule: 'leads no team' })
    expect(refusal(welcoming, 'l', edit('team.change', { team: 't', welcomesGuests: false }))).toMatchObject({
      rule: 'not welcome',
    })
    expect(
      refusal(
        welcoming,
        'l',
        edit('member.remove', { team: 't', person: 'g' }),
        edit('team.change', { team: 't', welcomesGuests: false }),
      ),
    ).toBe('allowed')
  })
})

describe('giving and taking', () => {
  const place: Part[] = [person('s'), person('p'), node('a', 'root'), node('b', 'a'), node('c', 'a', broken)]
  const shared = [...place, grant('a', 'person:s', steward), grant('c', 'person:owner', steward)]

  test('needs share, and to have what is given', () => {
    const sharer = [...shared, grant('b', 'person:p', levelActions('Reader')), grant('b', 'team:x', reader)]
    expect(refusal(world(...shared), 's', giving('b', 'person:p', editor))).toBe('allowed')
    expect(refusal(world(...sharer), 'p', giving('b', 'person:s', reader))).toEqual({
      code: 'action-missing',
      action: 'share',
      node: 'b',
    })
    const narrow = [...shared, grant('b', 'person:p', 0b10000001 as never)]
    expect(refusal(world(...narrow), 'p', giving('b', 'everyone', reader))).toEqual({
      code: 'gives-more',
      node: 'b',
      lacks: ['copy'],
    })
  })

  test('a place that one cannot see is refused like one that is not there', () => {
    expect(refusal(world(...shared), 's', giving('c', 'person:p', reader))).toEqual(
      refusal(world(...shared), 's', giving('nowhere', 'person:p', reader)),
    )
    const hidden = grant('c', 'person:p', reader)
    expect(refusal(world(...shared, hidden), 's', edit('grant.end', { grant: 'c person:p' }))).toEqual(
      refusal(world(...shared, hidden), 's', edit('grant.end', { grant: 'nowhere' })),
    )
  })

  test('never leaves a place without a steward, now or when ends have passed', () => {
    const end = edit('grant.end', { grant: 'a person:s' })
    expect(refusal(world(...shared), 's', end)).toMatchObject({
      code: 'no-steward-left',
      nodes: ['a'],
      when: 'now',
    })
    const ending = edit('grant.change', { grant: 'a person:s', until: now + 10 })
    expect(refusal(world(...shared), 's', ending)).toMatchObject({
      code: 'no-steward-left',
      when: 'after ends',
    })
    expect(refusal(world(...shared), 's', giving('a', 'person:p', steward), end)).toBe('allowed')
  })

  test('never gives oneself more, or the same for longer', () => {
    const timed = [...shared, grant('b', 'person:p', steward, { until: now + 10 })]
    expect(refusal(world(...timed), 'p', giving('b', 'person:p', steward))).toEqual({
      code: 'own-raise',
      nodes: ['b'],
    })
    expect(
      refusal(world(...timed), 'p', edit('grant.change', { grant: 'b person:p', until: now + 20 })),
    ).toMatchObject({ code: 'own-raise' })
    expect(refusal(world(...timed), 'p', giving('b', 'person:p', steward, { until: now + 10 }))).toBe(
      'allowed',
    )
    expect(refusal(world(...timed), 'p', edit('grant.end', { grant: 'b person:p' }))).toBe('allowed')
  })

  test('gives guests no stewardship, and groups of guests nothing', () => {
    const guest = person('g', { kind: 'guest' })
    expect(refusal(world(...shared, guest), 's', giving('a', 'person:g', steward))).toMatchObject({
      rule: 'no stewardship',
    })
    expect(refusal(world(...shared, guest), 's', giving('a', 'guests', reader))).toEqual({
      code: 'limits-only',
    })
    expect(refusal(world(...shared), 's', giving('a', 'person:p', reader, { until: now }))).toEqual({
      code: 'end-in-past',
    })
    expect(
      refusal(world(...shared), 's', giving('a', 'person:p', reader, { from: now + 5, until: now + 5 })),
    ).toEqual({ code: 'start-after-end' })
  })
})

test('things stand where their kind may, made by those who may add there', () => {
  const parts = [
    person('p'),
    node('a', 'root'),
    node('b', 'a', { kind: 'board' }),
    grant('a', 'person:p', levelActions('Adder')),
    grant('a', 'person:owner', steward),
  ]
  const making = (parent: string, as: string) => edit('node.create', { node: 'n', parent, as, name: 'N' })
  expect(refusal(world(...parts), 'p', making('a', 'page'))).toBe('allowed')
  expect(refusal(world(...parts), 'p', making('b', 'page'))).toEqual({
    code: 'wrong-place',
    within: 'board',
    kind: 'page',
  })
  expect(refusal(world(...parts), 'p', making('root', 'folder'))).toMatchObject({ code: 'unknown' })
  const made = after(world(...parts), 'p', making('a', 'page'))
  const naming = (node: string) => edit('node.describe', { node, name: 'Other' })
  expect(rowOf(after(made, 'p', naming('n')).nodes, 'n' as NodeId)?.name).toBe('Other')
  expect(refusal(made, 'p', naming('b'))).toEqual({ code: 'action-missing', action: 'change', node: 'b' })
})
