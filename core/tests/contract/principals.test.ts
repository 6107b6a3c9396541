import { describe, expect, test } from 'vitest'
import { allRows, rowOf } from '../../base/collection.ts'
import type { NodeId, PersonId, TeamId } from '../../base/ids.ts'
import { who } from '../../access/who.ts'
import { judge, proposedOf } from '../../changes/judge.ts'
import { impact } from '../../impact/impact.ts'
import { noActions } from '../../levels/action.ts'
import { privateFolderOf, type State } from '../../state/state.ts'
import { snapshotOf, nextBound } from '../../state/snapshot.ts'
import { after, edit, editor, giving, levelOf, reader, refusal, steward } from '../judging.ts'
import { broken, grant, holding, limit, member, node, now, type Part, person, team, world } from '../world.ts'

/** Who: each sentence of what the contract says of principals. */

const cast = [
  person('m'),
  person('n'),
  person('lead'),
  person('g', { kind: 'guest' }),
  person('gone', { status: 'suspended' }),
  team('t', { welcomesGuests: true }),
  member('t', 'm'),
  member('t', 'g'),
  member('t', 'lead', { lead: true }),
  node('a', 'root'),
]

/** Who of the cast can open `a`. */
const openTo = (state: State, at = now) =>
  who(snapshotOf(state, at), 'a' as NodeId)
    .filter(each => each.isActive)
    .map(each => each.person.id as string)
    .sort()

describe('a principal matches', () => {
  test.each([
    ['person:m', ['m']],
    ['team:t', ['g', 'lead', 'm']],
    ['leads:t', ['lead']],
    ['everyone', ['lead', 'm', 'n', 'owner']],
  ] as const)('%s: %j', (principal, people) => {
    expect(openTo(world(...cast, grant('a', principal, reader)))).toEqual(people)
  })

  test.each([
    ['guests', ['lead', 'm', 'n', 'owner']],
    ['anyone', []],
  ] as const)('%s, in limits: all but %j are held', (principal, left) => {
    const given = [grant('a', 'everyone', reader), grant('a', 'person:g', reader)]
    expect(openTo(world(...cast, ...given, limit('a', principal)))).toEqual(left)
  })

  test('guests and anyone never in a grant, and nobody signed in as the web', () => {
    const state = world(...cast, grant('a', 'person:owner', steward))
    for (const principal of ['guests', 'anyone'])
      expect(refusal(state, 'owner', giving('a', principal, reader))).toEqual({ code: 'limits-only' })
    const published = world(...cast, node('b', 'root', { web: 'published' }))
    expect(levelOf(published, 'm', 'b')).toBe('No access')
  })
})

test.each(['invited', 'suspended', 'removed'] as const)('nobody %s has access', status => {
  const state = world(person('p', { status }), node('a', 'root'), grant('a', 'person:p', steward))
  expect(levelOf(state, 'p', 'a')).toBe('No access')
})

test('a person’s end ends all that they have', () => {
  const state = world(
    person('p', { until: now + 10 }),
    node('a', 'root'),
    grant('a', 'person:p', reader),
    grant('a', 'everyone', reader),
  )
  expect([levelOf(state, 'p', 'a'), levelOf(state, 'p', 'a', now + 10)]).toEqual(['Reader', 'No access'])
})

describe('a guest', () => {
  const parts = [...cast, node('b', 'root'), grant('b', 'person:g', editor)]

  test('sleeps in a team that does not welcome guests, for grants and limits alike', () => {
    const cold = world(
      ...parts,
      team('cold'),
      member('cold', 'g'),
      grant('a', 'team:cold', editor),
      limit('b', 'team:cold'),
    )
    expect([levelOf(cold, 'g', 'a'), levelOf(cold, 'g', 'b')]).toEqual(['No access', 'Editor'])
  })

  test('wakes where a team begins to welcome guests, which the effect tells, wherever the team is named', () => {
    const cold = [team('cold'), member('cold', 'g'), member('cold', 'lead', { lead: true })]
    const before = snapshotOf(world(...parts, ...cold, grant('a', 'team:cold', reader)), now)
    const edits = [edit('team.change', { team: 'cold', welcomesGuests: true })]
    const set = { author: 'lead' as PersonId, reason: '', edits }
    const judged = judge(before, set)
    if (!judged.ok) throw new Error(JSON.stringify(judged.error))
    const [first] = impact(proposedOf(before, set, judged.value))
    expect(first?.differences).toEqual([
      { person: 'g', node: 'a', nodes: 1, before: noActions, after: reader },
    ])
  })

  test('stays in no team that stops welcoming guests, unless cleared in the same change set', () => {
    const closing = edit('team.change', { team: 't', welcomesGuests: false })
    expect(refusal(world(...parts), 'lead', closing)).toMatchObject({ rule: 'not welcome' })
    const leaving = edit('member.remove', { team: 't', person: 'g' })
    expect(refusal(world(...parts), 'lead', closing, leaving)).toBe('allowed')
  })
})

test('an archived team still matches', () => {
  const archived = team('old', { archived: true })
  const state = world(...cast, archived, member('old', 'm'), grant('a', 'team:old', editor))
  expect(levelOf(state, 'm', 'a')).toBe('Editor')
})

describe('what starts and ends: a person, a grant, a limit, a membership, a role', () => {
  const span = { from: now, until: now + 10 }
  const given = grant('a', 'everyone', reader)
  const state = (...parts: readonly Part[]) => world(person('p'), team('t'), node('a', 'root'), ...parts)
  const times = [now - 1, now, now + 9, now + 10]
  const at = (of: State) => times.map(time => levelOf(of, 'p', 'a', time))
  const counting = ['No access', 'Reader', 'Reader', 'No access']

  test('counts from its start and no more from its end on', () => {
    expect(at(state(grant('a', 'person:p', reader, span)))).toEqual(counting)
    expect(at(state(member('t', 'p', span), grant('a', 'team:t', reader)))).toEqual(counting)
    expect(at(world(person('p', span), node('a', 'root'), given))).toEqual(counting)
    expect(at(state(given, limit('a', 'person:p', undefined, span)))).toEqual([
      'Reader',
      'No access',
      'No access',
      'Reader',
    ])
  })

  test('an answer holds until the next of them', () => {
    expect(nextBound(state(grant('a', 'person:p', reader, span)), now)).toBe(now + 10)
    expect(nextBound(state(given), now)).toBe(Infinity)
  })

  test('has no end at or before now in the edit that sets it, and no start after its end', () => {
    const steward = state(grant('a', 'person:owner', 1023 as never))
    const refused = (more: object) => refusal(steward, 'owner', giving('a', 'person:p', reader, more))
    expect(refused({ until: now })).toEqual({ code: 'end-in-past' })
    expect(refused({ from: now + 9, until: now + 5 })).toEqual({ code: 'start-after-end' })
    expect(refused({ until: now + 1 })).toBe('allowed')
  })
})

describe('making a member a guest', () => {
  const folder = (of: string) => [
    node(`${of}'s`, 'root', { home: { of: 'person', person: of as PersonId }, ...broken }),
    node(`${of}'s page`, `${of}'s`),
    grant(`${of}'s`, `person:${of}`, steward),
  ]
  const parts = [
    ...cast,
    ...folder('m'),
    ...folder('n'),
    holding('m', 'role-member'),
    grant('a', 'person:owner', steward),
  ]
  const turning = (of: string, as: string, taker: string | null = null) =>
    edit('person.convert', { person: of, as, taker, holding: 'h new', folder: 'f new', grant: 'g new' })
  const roles = (state: State, of: string) =>
    allRows(state.holdings).flatMap(each => (each.person === of ? [each.role] : []))

  test('bins the private folder, or hands it to another member', () => {
    const binned = after(world(...parts), 'owner', turning('m', 'guest'))
    expect(privateFolderOf(binned, 'm' as PersonId)?.binned).not.toBe(null)
    const taken = after(world(...parts), 'owner', turning('m', 'guest', 'n'))
    expect(privateFolderOf(taken, 'm' as PersonId)).toBe(undefined)
    expect([levelOf(taken, 'm', "m's page"), levelOf(taken, 'n', "m's page")]).toEqual([
      'No access',
      'Steward',
    ])
    expect(refusal(world(...parts), 'owner', turning('m', 'guest', 'g'))).toMatchObject({ what: 'person' })
    expect(refusal(world(...parts), 'owner', turning('m', 'guest', 'owner'))).toMatchObject({
      what: 'person',
    })
  })

  test('needs the privilege and rank, and to hand over what is private more than that', () => {
    const lead = [person('pl'), holding('pl', 'role-people-lead')]
    const state = world(...parts, ...lead)
    expect(refusal(state, 'n', turning('m', 'guest'))).toMatchObject({ code: 'unknown' })
    expect(refusal(state, 'pl', turning('m', 'guest'))).toBe('allowed')
    expect(refusal(state, 'pl', turning('m', 'guest', 'n'))).toEqual({
      code: 'privilege-missing',
      privilege: 'recover access',
    })
    expect(refusal(state, 'pl', turning('owner', 'guest'))).toMatchObject({ code: 'outranked' })
  })

  test('leaves the role Guest and no other, and stewardship nowhere', () => {
    const state = world(...parts, grant('a', 'person:m', steward))
    const guest = after(state, 'owner', turning('m', 'guest'))
    expect(roles(guest, 'm')).toEqual(['role-guest'])
    expect(allRows(guest.grants).find(each => each.id === 'a person:m')?.gives).not.toBe(steward)
    expect(levelOf(guest, 'm', 'a')).toBe('Editor')
    const more = world(...parts, holding('m', 'role-people-lead'))
    expect(refusal(more, 'owner', turning('m', 'guest'))).toMatchObject({ rule: 'no role' })
    const taking = edit('role.unassign', { holding: 'm role-people-lead' })
    expect(refusal(more, 'owner', taking, turning('m', 'guest'))).toBe('allowed')
  })

  test('is taken back by making a guest a member, who gets their folder again', () => {
    const guest = after(world(...parts), 'owner', turning('m', 'guest'))
    const back = after(
      guest,
      'owner',
      edit('person.convert', {
        person: 'm',
        as: 'member',
        taker: null,
        holding: 'h again',
        folder: 'f again',
        grant: 'g again',
      }),
    )
    expect(levelOf(back, 'm', "m's page")).toBe('Steward')
    expect(roles(back, 'm')).toEqual(['role-member'])
    const member = after(world(...cast), 'owner', turning('g', 'member'))
    expect([roles(member, 'g'), levelOf(member, 'g', 'f new')]).toEqual([['role-member'], 'Steward'])
    const coming = after(
      world(person('i', { kind: 'guest', status: 'invited' })),
      'owner',
      turning('i', 'member'),
    )
    expect(privateFolderOf(coming, 'i' as PersonId)).toBe(undefined)
    expect(refusal(world(...parts), 'owner', turning('m', 'member'))).toMatchObject({ what: 'kind' })
  })
})

describe('removing somebody', () => {
  const parts = [
    ...cast,
    holding('m', 'role-member'),
    person('contacted', { kind: 'guest', contact: 'm' as PersonId }),
    grant('a', 'person:m', steward),
    limit('a', 'person:m', reader),
    grant('a', 'person:owner', steward),
  ]
  const state = world(...parts)
  const removed = after(state, 'owner', edit('person.remove', { person: 'm' }))

  test('ends their access and all that hangs on them; who turned to them gets another contact', () => {
    expect(rowOf(removed.persons, 'm' as PersonId)?.status).toBe('removed')
    expect(openTo(removed)).not.toContain('m')
    for (const table of ['grants', 'limits', 'memberships', 'holdings'] as const)
      expect(JSON.stringify(allRows(removed[table] as State['grants']))).not.toMatch(/person:m"|"person":"m"/)
    expect(rowOf(removed.persons, 'contacted' as PersonId)?.contact).toBe('owner')
  })

  test('is done once, by the privilege, within rank; and never undone', () => {
    expect(refusal(removed, 'owner', edit('person.remove', { person: 'm' }))).toMatchObject({
      what: 'person',
    })
    expect(refusal(state, 'n', edit('person.remove', { person: 'm' }))).toMatchObject({ code: 'unknown' })
    const before = rowOf(state.persons, 'm' as PersonId)
    const change = { table: 'persons', id: 'm', before, after: rowOf(removed.persons, 'm' as PersonId) }
    expect(refusal(removed, 'owner', edit('undo', { revision: 1, changes: [change], written: [] }))).toEqual({
      code: 'never-undone',
    })
  })
})

test('a role can be held over the whole workspace, the people of one team, or guests', () => {
  const parts = [
    ...cast,
    holding('n', 'role-people-lead', { over: 'team', team: 't' as TeamId }),
    holding('lead', 'role-people-lead', { over: 'guests' }),
  ]
  const naming = (of: string) => edit('person.describe', { person: of, title: 'x' })
  const outcome = (by: string) =>
    ['m', 'g', 'gone'].map(of => refusal(world(...parts), by, naming(of)) === 'allowed')
  expect([outcome('n'), outcome('lead')]).toEqual([
    [true, true, false],
    [false, true, false],
  ])
})
