import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { check } from '../access/evaluate.ts'
import { allRows, rowOf } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { levelActions } from '../levels/level.ts'
import { applyChanges, inverseOf, pathOf, privateFolderOf, type State, tableNames } from '../state/state.ts'
import { momentOf } from '../state/moment.ts'
import { judged } from '../tests/judge.ts'
import { broken, grant, holding, member, node, now, type Part, person, team, world } from '../tests/world.ts'
import { anyActions, anyGrant, anyLimit, anySpan, anyWorld, nodeIds, personIds } from '../tests/worlds.ts'
import type { Edit } from './edit.ts'
import { judge } from './judge.ts'

const edit = (kind: Edit['kind'], fields: object) => ({ kind, ...fields }) as Edit
const judging = (state: State, author: string, ...edits: Edit[]) =>
  judge(momentOf(state, now), { author: author as PersonId, reason: '', edits })

/** The state after a change set that must be allowed. */
function after(state: State, author: string, ...edits: Edit[]): State {
  const result = judging(state, author, ...edits)
  if (!result.ok) throw new Error(JSON.stringify(result.error))
  return result.value.state
}

const refusal = (state: State, author: string, ...edits: Edit[]) => {
  const result = judging(state, author, ...edits)
  return result.ok ? 'allowed' : result.error.refusal
}

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
const giving = (at: string, to: string, gives: number, more: object = {}) =>
  edit('grant.add', {
    grant: `${at} ${to} new`,
    node: at,
    principal: to,
    gives,
    from: null,
    until: null,
    ...more,
  })

const steward = levelActions('Steward')
const reader = levelActions('Reader')
const editor = levelActions('Editor')

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
    expect(check(momentOf(invited, now), 'new' as PersonId, 'a' as NodeId)).toBe(0)
    expect(refusal(invited, 'owner', accepting)).toMatchObject({ code: 'unknown' })
    const late = judge(momentOf(invited, now + 100), {
      author: 'new' as PersonId,
      reason: '',
      edits: [accepting],
    })
    expect(late).toMatchObject({ ok: false, error: { refusal: { code: 'invitation-over' } } })
    const here = after(invited, 'new', accepting)
    expect(check(momentOf(here, now), 'new' as PersonId, 'a' as NodeId)).toBe(reader)
    expect(refusal(here, 'new', accepting)).toMatchObject({ code: 'unknown' })
  })

  test('a member gets a private folder that nobody else sees, a guest none', () => {
    const root = grant('root', 'everyone', steward)
    const here = after(after(world(root), 'owner', inviting()), 'new', accepting)
    const folder = privateFolderOf(here, 'new' as PersonId)?.id as NodeId
    expect(check(momentOf(here, now), 'new' as PersonId, folder)).toBe(steward)
    expect(check(momentOf(here, now), 'owner' as PersonId, folder)).toBe(0)
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
    for (const table of tableNames) expect(back[table].rows.size).toBe(start[table].rows.size)
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
    expect(check(momentOf(made, now), 'p' as PersonId, 'h' as NodeId)).toBe(steward)
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
    expect(refusal(world(...standing), 'l', edit('member.take', { team: 't', person: 'l' }))).toMatchObject({
      code: 'no-steward-left',
    })
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
        edit('member.take', { team: 't', person: 'g' }),
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
      nodes: ['a', 'b'],
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

describe('breaking and restoring', () => {
  const parts: Part[] = [
    person('s'),
    person('p'),
    team('t'),
    member('t', 'p', { until: now + 30 }),
    member('t', 's', { until: now + 40 }),
    node('a', 'root'),
    node('b', 'a'),
    grant('a', 'person:s', steward),
    grant('a', 'team:t', editor, { until: now + 20 }),
    grant('a', 'everyone', reader, { from: now + 10 }),
  ]
  const breaking = (mode: string) => edit('node.break', { node: 'b', mode, copies: 'copy' })
  const restoring = (drop: string) => edit('node.restore', { node: 'b', drop })
  const actionsAt = (state: State, who: string, at = now) =>
    check(momentOf(state, at), who as PersonId, 'b' as NodeId)

  test('starting empty leaves the node’s own grants, and the author for as long', () => {
    const state = after(world(...parts), 's', breaking('empty'))
    expect([actionsAt(state, 's'), actionsAt(state, 'p'), actionsAt(state, 'p', now + 15)]).toEqual([
      steward,
      0,
      0,
    ])
    expect(actionsAt(after(state, 's', restoring('copies')), 'p')).toBe(editor)
  })

  test('keeping changes nobody’s access, now, when something ends or when something begins', () => {
    const before = world(...parts)
    const state = after(before, 's', breaking('keep'))
    for (const at of [now, now + 15, now + 25, now + 35])
      for (const who of ['s', 'p', 'owner'])
        expect(actionsAt(state, who, at)).toBe(actionsAt(before, who, at))
  })

  test('restoring drops the copies, keeps all, or drops all of the node’s own', () => {
    const kept = after(world(...parts, grant('b', 'person:owner', reader)), 's', breaking('keep'))
    const own = (drop: string) =>
      allRows(after(kept, 's', restoring(drop)).grants).filter(each => each.node === 'b').length
    expect([own('copies'), own('none'), own('own')]).toEqual([1, 4, 0])
  })

  test('needs seal, and something to do', () => {
    const sharer = grant('b', 'person:p', 0b10000001 as never)
    expect(refusal(world(...parts, sharer), 'p', breaking('empty'))).toMatchObject({
      code: 'action-missing',
      action: 'seal',
    })
    expect(refusal(world(...parts), 's', restoring('none'))).toEqual({ code: 'unknown', what: 'break' })
    expect(refusal(after(world(...parts), 's', breaking('keep')), 's', breaking('empty'))).toMatchObject({
      what: 'break',
    })
  })
})

describe('limits', () => {
  const parts: Part[] = [
    person('s'),
    person('e'),
    person('g', { kind: 'guest' }),
    node('a', 'root'),
    grant('a', 'person:s', steward),
    grant('a', 'person:owner', steward),
    grant('a', 'person:e', editor),
    grant('a', 'person:g', editor),
  ]
  const limiting = (principal: string, allows: number, more: object = {}) =>
    edit('limit.add', {
      limit: 'l',
      node: 'a',
      principal,
      allows,
      sparesStewards: true,
      from: null,
      until: null,
      ...more,
    })
  const all = (state: State) =>
    ['s', 'e', 'g'].map(id => check(momentOf(state, now), id as PersonId, 'a' as NodeId))

  test('lower a guest, all guests, or all members but stewards', () => {
    expect(all(after(world(...parts), 's', limiting('person:g', reader)))).toEqual([steward, editor, reader])
    expect(all(after(world(...parts), 's', limiting('guests', 0)))).toEqual([steward, editor, 0])
    expect(all(after(world(...parts), 's', limiting('everyone', reader)))).toEqual([steward, reader, editor])
  })

  test('are set with share, and lifted by whoever has what they kept out', () => {
    expect(refusal(world(...parts), 'e', limiting('guests', 0))).toMatchObject({ action: 'share' })
    const limited = after(world(...parts, grant('a', 'team:x', reader)), 's', limiting('guests', reader))
    expect(refusal(limited, 's', edit('limit.end', { limit: 'l' }))).toBe('allowed')
    expect(refusal(limited, 'e', edit('limit.end', { limit: 'l' }))).toMatchObject({ action: 'share' })
    const narrow = world(...parts, person('n'), grant('a', 'person:n', 0b10000011 as never))
    const tight = after(narrow, 's', limiting('guests', 1))
    expect(refusal(tight, 'n', edit('limit.change', { limit: 'l', allows: reader }))).toBe('allowed')
    expect(refusal(tight, 'n', edit('limit.change', { limit: 'l', allows: editor }))).toMatchObject({
      code: 'gives-more',
      lacks: ['comment', 'add', 'change'],
    })
    expect(refusal(tight, 'n', edit('limit.change', { limit: 'l', sparesStewards: false }))).toBe('allowed')
    expect(refusal(tight, 'n', edit('limit.change', { limit: 'l', until: now + 5 }))).toMatchObject({
      code: 'gives-more',
    })
  })

  test('on oneself are not loosened by oneself', () => {
    const own = after(world(...parts), 'owner', limiting('person:s', 0b10000011))
    expect(refusal(own, 's', edit('limit.end', { limit: 'l' }))).toEqual({ code: 'own-limit' })
    expect(refusal(own, 's', edit('limit.change', { limit: 'l', allows: 0b10000001 }))).toBe('allowed')
    expect(refusal(own, 'owner', edit('limit.end', { limit: 'l' }))).toBe('allowed')
  })
})

describe('states and moves', () => {
  const parts: Part[] = [
    person('c'),
    person('p'),
    node('a', 'root'),
    node('b', 'a'),
    node('d', 'b'),
    node('x', 'root'),
    grant('root', 'person:owner', steward),
    grant('a', 'person:c', levelActions('Curator')),
    grant('x', 'person:c', levelActions('Adder')),
    grant('x', 'person:p', reader),
  ]
  const setting = (id: string, state: object) => edit('node.state', { node: id, ...state })
  const moving = (id: string, parent: string) => edit('node.move', { node: id, parent })

  test('what is archived is not edited, and comes back by those who could remove it', () => {
    const archived = after(world(...parts), 'c', setting('b', { archived: true }))
    expect(refusal(archived, 'c', edit('node.describe', { node: 'd', name: 'N' }))).toMatchObject({
      action: 'change',
    })
    expect(refusal(archived, 'c', setting('b', { archived: false }))).toBe('allowed')
    expect(refusal(archived, 'owner', giving('d', 'person:p', editor))).toBe('allowed')
  })

  test('nothing in the bin is edited but bringing back its top', () => {
    const binned = after(world(...parts), 'c', setting('b', { binned: true }))
    for (const id of ['b', 'd']) {
      expect(refusal(binned, 'c', edit('node.describe', { node: id, name: 'N' }))).toMatchObject({
        code: 'unknown',
      })
      expect(refusal(binned, 'owner', giving(id, 'person:p', reader))).toMatchObject({ code: 'unknown' })
    }
    expect(refusal(binned, 'c', setting('d', { binned: false }))).toMatchObject({ code: 'unknown' })
    expect(refusal(binned, 'p', setting('b', { binned: false }))).toMatchObject({ code: 'unknown' })
    expect(refusal(binned, 'c', setting('b', { binned: false }))).toBe('allowed')
  })

  test('a move needs share if anybody gains by it, and ends in no circle', () => {
    expect(refusal(world(...parts), 'c', moving('b', 'x'))).toMatchObject({
      code: 'action-missing',
      action: 'share',
      node: 'b',
    })
    const nobodyGains = world(...parts.filter(each => each.row.id !== 'x person:p'))
    expect(refusal(nobodyGains, 'c', moving('b', 'x'))).toBe('allowed')
    expect(refusal(world(...parts), 'owner', moving('b', 'd'))).toMatchObject({ kind: 'own subtree' })
    expect(refusal(world(...parts), 'owner', moving('a', 'x'))).toMatchObject({ kind: 'home' })
  })

  test('suspending is a matter of rank, and never leaves no owner; stewards may fall', () => {
    const staff = [
      person('admin'),
      holding('admin', 'role-administrator'),
      person('lead'),
      holding('lead', 'role-people-lead'),
    ]
    const suspending = (id: string) => edit('person.suspend', { person: id })
    const state = world(...parts, ...staff, node('only', 'root'), grant('only', 'person:lead', steward))
    expect(refusal(state, 'admin', suspending('owner'))).toMatchObject({ code: 'outranked' })
    expect(refusal(state, 'lead', suspending('p'))).toMatchObject({ privilege: 'suspend' })
    expect(refusal(state, 'owner', suspending('owner'))).toEqual({ code: 'no-owner-left' })
    const suspended = after(state, 'admin', suspending('lead'))
    expect(check(momentOf(suspended, now), 'lead' as PersonId, 'only' as NodeId)).toBe(0)
    expect(refusal(suspended, 'admin', edit('person.resume', { person: 'lead' }))).toBe('allowed')
  })
})

const nodeId = fc.constantFrom(...nodeIds)
const nth = fc.nat(9)
const anyUntil = anySpan.map(span => span.until)

/** An edit of any kind that changes access, at a world whose records it may name by number. */
const anyEdit: fc.Arbitrary<(state: State) => Edit[]> = fc.oneof(
  anyGrant.map(({ row }) => () => [edit('grant.add', { ...row, grant: `new ${row.id}` })]),
  anyLimit.map(({ row }) => () => [edit('limit.add', { ...row, limit: `new ${row.id}` })]),
  fc.record({ nth, gives: anyActions.filter(set => set > 0), until: anyUntil }).map(
    ({ nth, ...fields }) =>
      (state: State) =>
        allRows(state.grants)
          .slice(nth, nth + 1)
          .map(({ id }) => edit('grant.change', { grant: id, ...fields })),
  ),
  fc.record({ nth, allows: anyActions, until: anyUntil }).map(
    ({ nth, ...fields }) =>
      (state: State) =>
        allRows(state.limits)
          .slice(nth, nth + 1)
          .map(({ id }) => edit('limit.change', { limit: id, ...fields })),
  ),
  nth.map(
    nth => (state: State) =>
      allRows(state.grants)
        .slice(nth, nth + 1)
        .map(({ id }) => edit('grant.end', { grant: id })),
  ),
  nth.map(
    nth => (state: State) =>
      allRows(state.limits)
        .slice(nth, nth + 1)
        .map(({ id }) => edit('limit.end', { limit: id })),
  ),
  fc
    .record({ node: nodeId, mode: fc.constantFrom('keep', 'empty') })
    .map(fields => () => [edit('node.break', { ...fields, copies: 'copy' })]),
  fc
    .record({ node: nodeId, drop: fc.constantFrom('copies', 'none', 'own') })
    .map(fields => () => [edit('node.restore', fields)]),
  fc.record({ node: nodeId, parent: nodeId }).map(fields => () => [edit('node.move', fields)]),
  fc
    .record({
      node: nodeId,
      state: fc.constantFrom({ archived: true }, { archived: false }, { binned: true }, { binned: false }),
    })
    .map(({ node, state }) => () => [edit('node.state', { node, ...state })]),
)

/** Random authors seldom may do anything: here everybody named has a role, and most hold a place. */
const anyBusyWorld = fc
  .tuple(anyWorld, fc.subarray([...personIds]), fc.subarray([...nodeIds]))
  .map(([state, people, nodes]) =>
    people
      .flatMap(id => nodes.map(at => grant(at, `person:${id}`, steward, { id: `s ${at} ${id}` as never })))
      .reduce(
        (so, { table, row }) => applyChanges(so, [{ table, id: row.id, before: null, after: row } as never]),
        state,
      ),
  )

const later = [now, now + 5, now + 15, now + 30]
const everybody = personIds as unknown as PersonId[]
const everywhere = nodeIds as unknown as NodeId[]

test('whatever is allowed raises nobody’s own access, leaves stewards where they were, and can be taken back', () => {
  const allowed = new Map<string, number>()
  fc.assert(
    fc.property(
      anyBusyWorld,
      fc.constantFrom(...everybody),
      fc.array(anyEdit, { minLength: 1, maxLength: 2 }),
      (state, author, drafts) => {
        const edits = drafts.flatMap(draft => draft(state))
        const result = judging(state, author, ...edits)
        if (!result.ok) return
        for (const { kind } of edits) allowed.set(kind, (allowed.get(kind) ?? 0) + 1)
        const changed = result.value.state
        for (const at of later)
          for (const node of everywhere) {
            const held = (of: State) => judged(momentOf(of, at), author, node, { beforeStates: true })
            expect(held(state)).toEqual(expect.arrayContaining(held(changed)))
            const kept = (of: State) =>
              everybody.some(id => judged(momentOf(of, at), id, node).includes('share'))
            const isLasting = at === now || at === now + 30
            if (isLasting && node !== 'root' && kept(state) && !inBin(changed, node))
              expect(kept(changed)).toBe(true)
          }
        const undone = applyChanges(changed, inverseOf(result.value.changes))
        for (const table of tableNames)
          expect(new Set<unknown>(allRows(undone[table] as State['nodes']))).toEqual(
            new Set<unknown>(allRows(state[table] as State['nodes'])),
          )
      },
    ),
    { numRuns: 3000 },
  )
  expect([...allowed.keys()].sort()).toEqual([
    'grant.add',
    'grant.change',
    'grant.end',
    'limit.add',
    'limit.change',
    'limit.end',
    'node.break',
    'node.move',
    'node.restore',
    'node.state',
  ])
})

const inBin = (state: State, node: NodeId) => pathOf(state, node).some(each => each.binned)

test('a break that keeps changes nobody’s access, now or later', () => {
  fc.assert(
    fc.property(
      anyBusyWorld,
      fc.constantFrom(...everybody),
      fc.constantFrom(...everywhere),
      (state, author, node) => {
        const result = judging(state, author, edit('node.break', { node, mode: 'keep', copies: 'copy' }))
        if (!result.ok) return
        for (const at of later)
          for (const id of everybody)
            for (const each of everywhere)
              expect(judged(momentOf(result.value.state, at), id, each)).toEqual(
                judged(momentOf(state, at), id, each),
              )
      },
    ),
    { numRuns: 800 },
  )
})
