import { describe, expect, test } from 'vitest'
import { allRows, rowOf } from '../../base/collection.ts'
import { freeHandle } from '../../changes/edits/handle.ts'
import { lacksHandingOn } from '../../changes/edits/invitation.ts'
import { judge } from '../../changes/judge.ts'
import { auditEventsOf } from '../../changes/audit-event.ts'
import type { Edit } from '../../changes/edit.ts'
import { snapshotOf } from '../../state/snapshot.ts'
import type { State } from '../../state/state.ts'
import { after, edit, judging, refusal } from '../judging.ts'
import { holding, member, now, person, team, workspace, world } from '../world.ts'

/** How people come in, are called, ask, and hand on whom they answer for: who may, and what is refused. */
const inviting = (id: string, more: object = {}) =>
  edit('person.invite', {
    person: id,
    invitation: `i ${id}`,
    holding: `h ${id}`,
    mail: `${id}@new.example`,
    name: id,
    as: 'member',
    role: null,
    scope: { over: 'workspace' },
    until: null,
    linkUntil: now + 100,
    message: '',
    ...more,
  })
const accepting = (id: string, more: object = {}) =>
  edit('invitation.accept', {
    person: id,
    account: `a ${id}`,
    name: id,
    folder: `f ${id}`,
    grant: `g ${id}`,
    ...more,
  })
const none = { role: null, teams: [], places: [], from: null, until: null }
const linking = (more: object = {}) =>
  edit('link.create', {
    link: 'link',
    name: 'Beach day',
    until: now + 50,
    domains: [],
    most: 2,
    welcome: null,
    offer: { as: 'member', ...none },
    ...more,
  })
const using = (mail: string) => edit('link.use', { link: 'link', mail })

const state = world(
  person('lead'),
  holding('lead', 'role-people-lead'),
  person('plain'),
  holding('plain', 'role-member'),
  person('guest', { kind: 'guest', contact: 'lead' as never }),
  holding('guest', 'role-guest'),
  person('crew'),
  holding('crew', 'role-member'),
  team('boats'),
  member('boats', 'crew', { lead: true }),
  team('open', { joining: 'open' }),
  team('hidden', { joining: 'unlisted' }),
  team('kept', { keptByDirectory: true }),
)
const code = (who: string, ...edits: Edit[]) => {
  const refused = refusal(state, who, ...edits)
  return refused === 'allowed' ? refused : refused.code
}
const undone = (before: State, by: string, ...edits: Edit[]) => {
  const result = judging(before, by, ...edits)
  if (!result.ok) throw new Error(JSON.stringify(result.error))
  return {
    state: result.value.state,
    back: edit('undo', { revision: 1, changes: result.value.changes, written: [] }),
  }
}

describe('an invitation', () => {
  test('has a start and an end, and a profile that is known already', () => {
    const invited = after(
      state,
      'lead',
      inviting('new', { from: now + 5, until: now + 9, profile: { handle: 'newt', title: 'Diver' } }),
    )
    expect(rowOf(invited.persons, 'new' as never)).toMatchObject({
      from: now + 5,
      until: now + 9,
      handle: 'newt',
      title: 'Diver',
    })
    expect(code('lead', inviting('new', { from: now + 9, until: now + 9 }))).toBe('start-after-end')
    expect(code('lead', inviting('new', { profile: { handle: 'No good' } }))).toBe('wrong-handle')
  })

  test('goes to welcome mail domains only, for members and guests apart; who is turned comes from one too', () => {
    const strict = world(
      workspace({ memberDomains: ['new.example'], guestDomains: ['out.example'] }),
      person('guest', { kind: 'guest' }),
      holding('guest', 'role-guest'),
    )
    const turning = edit('person.convert', {
      person: 'guest',
      as: 'member',
      taker: null,
      holding: 'x',
      folder: 'x',
      grant: 'x',
    })
    expect([
      refusal(strict, 'owner', inviting('new')),
      refusal(strict, 'owner', inviting('new', { mail: 'a@sub.new.example' })),
      refusal(strict, 'owner', inviting('new', { as: 'guest' })),
      refusal(strict, 'owner', inviting('new', { as: 'guest', mail: 'A@OUT.example' })),
      refusal(strict, 'owner', turning),
    ]).toMatchObject([
      'allowed',
      { code: 'domain-not-welcome' },
      { as: 'guest' },
      'allowed',
      { as: 'member' },
    ])
  })

  test('is changed by who may invite that person, in their role within rank', () => {
    const invited = after(state, 'lead', inviting('new'))
    const changing = (more: object) => edit('invitation.change', { person: 'new', ...more })
    expect(refusal(invited, 'plain', changing({ message: 'Hello' }))).toMatchObject({
      code: 'privilege-missing',
    })
    expect(refusal(invited, 'lead', changing({ message: 'Hello', until: now + 3 }))).toBe('allowed')
    expect(refusal(invited, 'lead', changing({ role: 'role-administrator' }))).toMatchObject({
      code: 'privilege-missing',
    })
    expect(refusal(invited, 'owner', changing({ role: 'role-administrator' }))).toBe('allowed')
    expect(
      refusal(state, 'owner', edit('invitation.change', { person: 'plain', message: '' })),
    ).toMatchObject({ code: 'unknown' })
    const first = undone(invited, 'lead', changing({ message: 'Hello', until: now + 3 }))
    const back = after(first.state, 'lead', first.back)
    expect([
      rowOf(back.persons, 'new' as never)?.until,
      rowOf(back.invitations, 'i new' as never)?.message,
    ]).toEqual([null, ''])
  })

  test('is accepted with the house rules where there are some, and gives a handle', () => {
    const strict = after(world(workspace({ houseRules: 'Shut the gate.' })), 'owner', inviting('new'))
    expect(refusal(strict, 'new', accepting('new'))).toEqual({ code: 'house-rules' })
    const come = after(strict, 'new', accepting('new', { agrees: true, handle: 'new.one' }))
    expect(rowOf(come.persons, 'new' as never)).toMatchObject({
      agreedAt: now,
      handle: 'new.one',
      status: 'active',
    })
  })
})

describe('a handle', () => {
  const naming = (who: string, handle: string) => edit('person.describe', { person: who, handle })
  const named = after(after(state, 'plain', naming('plain', 'first')), 'plain', naming('plain', 'second'))

  test('stays with its person when it is given up, and comes back to nobody else', () => {
    expect(allRows(named.handles).map(each => [each.id, each.person])).toContainEqual(['first', 'plain'])
    expect(refusal(named, 'crew', naming('crew', 'first'))).toMatchObject({
      code: 'already-there',
      what: 'handle',
    })
    expect(refusal(named, 'plain', naming('plain', 'first'))).toBe('allowed')
    expect(freeHandle(named, 'First!')).toBe('first2')
    expect(freeHandle(named, '玉')).toBe('person')
  })

  test.each(['A', 'a', 'ab c', '.ab', 'ab.', 'a'.repeat(31)])('is not %s', handle => {
    expect(code('plain', naming('plain', handle))).toBe('wrong-handle')
  })
})

describe('a request to join', () => {
  const asking = (to: string, request = 'r') =>
    edit('request.make', { request, wants: { of: 'team', team: to }, reason: '' })
  const requested = after(state, 'plain', asking('boats'))
  const answering = (accepted: boolean) =>
    accepted
      ? edit('request.accept', { request: 'r', gives: { of: 'team', membership: 'm' }, comment: '' })
      : edit('request.decline', { request: 'r', comment: 'No.' })

  test('is made by members, for teams that are joined by request and that they know', () => {
    expect([
      code('plain', asking('boats')),
      code('plain', asking('open')),
      code('plain', asking('hidden')),
      code('plain', asking('kept')),
      code('guest', asking('boats')),
      code('crew', asking('boats')),
    ]).toEqual(['allowed', 'not-by-request', 'unknown', 'not-by-request', 'unknown', 'already-there'])
    expect(refusal(requested, 'plain', asking('boats', 'again'))).toMatchObject({ code: 'already-there' })
  })

  test('is answered by who fills the team; let in it goes, declined it stays until asked anew', () => {
    expect([
      refusal(requested, 'plain', answering(true)),
      refusal(requested, 'guest', answering(true)),
    ]).toMatchObject([{ code: 'unknown' }, { code: 'unknown' }])
    const letIn = after(requested, 'crew', answering(true))
    expect([allRows(letIn.requests), rowOf(letIn.memberships, 'm' as never)]).toMatchObject([
      [],
      { person: 'plain', team: 'boats' },
    ])
    const declined = after(requested, 'crew', answering(false))
    expect(allRows(declined.requests)).toMatchObject([{ declined: { by: 'crew', comment: 'No.' } }])
    expect(refusal(declined, 'crew', answering(true))).toMatchObject({ code: 'unknown' })
    expect(allRows(after(declined, 'plain', asking('boats', 'again')).requests)).toMatchObject([
      { id: 'again', declined: null },
    ])
  })

  test('goes when one comes in another way, leaves, or takes it back', () => {
    const adding = edit('member.add', {
      membership: 'm',
      team: 'boats',
      person: 'plain',
      lead: false,
      from: null,
      until: null,
    })
    for (const [who, act] of [
      ['crew', adding],
      ['owner', edit('person.remove', { person: 'plain' })],
      ['plain', edit('request.withdraw', { request: 'r' })],
    ] as const)
      expect(allRows(after(requested, who, act).requests)).toEqual([])
    expect(refusal(requested, 'crew', edit('request.withdraw', { request: 'r' }))).toMatchObject({
      code: 'unknown',
    })
  })

  test('is told once: being let in goes along with coming in', () => {
    const result = judge(snapshotOf(requested, now), {
      author: 'crew' as never,
      reason: '',
      edits: [answering(true)],
    })
    expect(
      result.ok && auditEventsOf(requested, result.value.changes).map(event => event.change.table),
    ).toEqual(['memberships'])
  })

  test('is undone by who answers, and by nobody else', () => {
    const declined = undone(requested, 'crew', answering(false))
    expect(refusal(declined.state, 'guest', declined.back)).not.toBe('allowed')
    expect(allRows(after(declined.state, 'crew', declined.back).requests)).toMatchObject([{ declined: null }])
  })
})

describe('a join link', () => {
  const linked = after(state, 'lead', linking())

  test('is made by who may invite such people, and widened by its maker alone', () => {
    expect([code('plain', linking()), code('lead', linking())]).toEqual(['privilege-missing', 'allowed'])
    expect(code('lead', linking({ offer: { ...none, as: 'guest', role: 'role-member' } }))).toBe('guest-rule')
    const wider = edit('link.change', { link: 'link', most: 9 })
    expect([refusal(linked, 'owner', wider), refusal(linked, 'lead', wider)]).toEqual([
      { code: 'not-its-maker', what: 'link' },
      'allowed',
    ])
    const withdrawing = edit('link.withdraw', { link: 'link' })
    expect([refusal(linked, 'plain', withdrawing), refusal(linked, 'owner', withdrawing)]).toMatchObject([
      { code: 'privilege-missing' },
      'allowed',
    ])
    const gone = undone(linked, 'owner', withdrawing)
    // Nobody brings back a link that gives by somebody else's rights.
    expect([refusal(gone.state, 'owner', gone.back), refusal(gone.state, 'lead', gone.back)]).toMatchObject([
      { code: 'not-its-maker' },
      'allowed',
    ])
  })

  test('counts who comes by it, up to its number and its end, from its domains', () => {
    expect(refusal(linked, 'owner', inviting('a'), using('a@new.example'))).toMatchObject({ code: 'unknown' })
    const one = after(linked, 'lead', inviting('a'), using('a@new.example'))
    const two = after(one, 'lead', inviting('b'), using('b@new.example'))
    expect(refusal(two, 'lead', inviting('c'), using('c@new.example'))).toEqual({ code: 'link-over' })
    const late = judge(snapshotOf(one, now + 50), {
      author: 'lead' as never,
      reason: '',
      edits: [using('c@new.example')],
    })
    expect(late).toMatchObject({ error: { refusal: { code: 'link-over' } } })
    const narrow = after(state, 'lead', linking({ domains: ['new.example'] }))
    expect(refusal(narrow, 'lead', using('x@other.example'))).toMatchObject({ code: 'domain-not-welcome' })
  })
})

test('a welcome set is kept by who may invite such people, and not deleted while a link offers it', () => {
  const making = (as: string) =>
    edit('welcome.create', { welcome: 'set', name: 'Set', note: '', offer: { as, ...none } })
  const forGuests = world(person('host'), holding('host', 'role-host'), {
    table: 'roles',
    row: {
      id: 'role-host',
      name: 'Host',
      note: '',
      rank: 30,
      privileges: ['invite guests'],
      addressable: false,
      builtIn: false,
      seatExempt: false,
    } as never,
  })
  expect([
    refusal(forGuests, 'host', making('member')),
    refusal(forGuests, 'host', making('guest')),
  ]).toMatchObject([{ code: 'privilege-missing' }, 'allowed'])
  const made = after(state, 'lead', making('member'), linking({ welcome: 'set' }))
  expect(refusal(made, 'lead', edit('welcome.delete', { welcome: 'set' }))).toEqual({
    code: 'in-use',
    what: 'welcome set',
  })
  expect(
    refusal(
      made,
      'lead',
      edit('link.withdraw', { link: 'link' }),
      edit('welcome.delete', { welcome: 'set' }),
    ),
  ).toBe('allowed')
})

test('what a link gives through a welcome set is changed by the link’s maker alone, by undoing too', () => {
  const making = edit('welcome.create', {
    welcome: 'set',
    name: 'Set',
    note: '',
    offer: { as: 'member', ...none },
  })
  const raising = edit('welcome.change', {
    welcome: 'set',
    offer: { as: 'member', ...none, role: 'role-owner' },
  })
  const named = edit('welcome.change', { welcome: 'set', name: 'Crew', offer: { as: 'member', ...none } })
  const free = after(state, 'lead', making)
  const held = after(free, 'owner', linking({ welcome: 'set' }))
  const ofMaker = { code: 'not-its-maker', what: 'welcome set' }
  expect([refusal(free, 'lead', raising), refusal(held, 'lead', raising)]).toEqual(['allowed', ofMaker])
  expect([refusal(held, 'lead', named), refusal(held, 'owner', raising)]).toEqual(['allowed', 'allowed'])
  // Raised while it was free, lowered again, then offered by the Owner: undoing the lowering raises it.
  const lowering = edit('welcome.change', { welcome: 'set', offer: { as: 'member', ...none } })
  const { state: lowered, back } = undone(after(free, 'lead', raising), 'lead', lowering)
  expect(refusal(lowered, 'lead', back)).toBe('allowed')
  expect(refusal(after(lowered, 'owner', linking({ welcome: 'set' })), 'lead', back)).toEqual(ofMaker)
})

test('the link of an invitation is handed on by who sent it, and by an Owner', () => {
  const sentBy = (author: string) => snapshotOf(after(state, author, inviting('new')), now)
  const lacks = (author: string, by: string) => {
    const snapshot = sentBy(by)
    const context = { author: author as never, before: snapshot, now: snapshot }
    return lacksHandingOn(context, rowOf(snapshot.state.persons, 'new' as never))?.code ?? 'allowed'
  }
  expect([lacks('lead', 'lead'), lacks('owner', 'lead'), lacks('owner', 'owner')]).toEqual(
    Array(3).fill('allowed'),
  )
  expect([lacks('lead', 'owner'), lacks('plain', 'owner')]).toEqual(['not-its-maker', 'privilege-missing'])
})

test('a guest’s contact is named by who invites guests or handed on by the contact, and follows when that one leaves', () => {
  const naming = (contact: string) => edit('person.contact', { person: 'guest', contact })
  expect([
    code('plain', naming('crew')),
    code('lead', naming('crew')),
    code('lead', naming('guest')),
  ]).toEqual(['privilege-missing', 'allowed', 'unknown'])
  const handed = after(state, 'lead', naming('crew'))
  expect(refusal(handed, 'crew', naming('plain'))).toBe('allowed')
  const contactOf = (of: State) => rowOf(of.persons, 'guest' as never)?.contact
  const leaving = (contact: string | null) => edit('person.remove', { person: 'crew', contact })
  expect([
    contactOf(after(handed, 'owner', leaving('plain'))),
    contactOf(after(handed, 'owner', leaving(null))),
  ]).toEqual(['plain', 'owner'])
  expect(refusal(handed, 'owner', leaving('guest'))).toMatchObject({ code: 'unknown' })
})

test('leaving oneself needs nothing; the last owner stays, and guests follow who is named', () => {
  const leaving = (who: string, contact: string | null = null) =>
    edit('person.remove', { person: who, contact })
  expect([
    code('plain', leaving('plain')),
    code('guest', leaving('guest')),
    code('plain', leaving('crew')),
    code('owner', leaving('owner')),
  ]).toEqual(['allowed', 'allowed', 'privilege-missing', 'no-owner-left'])
  const left = after(state, 'lead', leaving('lead', 'crew'))
  expect(rowOf(left.persons, 'guest' as never)?.contact).toBe('crew')
})

test.each([
  ['name', { name: 'New' }, 'edit settings'],
  ['house rules', { houseRules: 'x' }, 'edit settings'],
  ['how long invitations work', { invitationDays: 3 }, 'edit settings'],
  ['domains', { guestDomains: ['a.example'] }, 'security'],
  ['the second step', { twoStepFor: ['role-owner'] }, 'security'],
  ['the ceiling', { guestCeiling: 1 }, 'security'],
  ['the end of a sign-in', { signInDays: 3 }, 'security'],
  ['its end without use', { idleHours: 3 }, 'security'],
] as const)('the setting of %s needs its privilege, and is undone with it', (_what, fields, privilege) => {
  const changing = edit('workspace.change', fields)
  expect(refusal(state, 'lead', changing)).toEqual({ code: 'privilege-missing', privilege })
  const { state: changed, back } = undone(state, 'owner', changing)
  expect(refusal(changed, 'lead', back)).toMatchObject({ code: 'privilege-missing' })
  expect(allRows(after(changed, 'owner', back).workspaces)).toEqual(allRows(state.workspaces))
})
