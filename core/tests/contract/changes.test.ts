import { describe, expect, test } from 'vitest'
import { allRows, rowOf } from '../../base/collection.ts'
import type { GrantId, PersonId, TeamId } from '../../base/ids.ts'
import type { Edit } from '../../changes/edit.ts'
import { leftAlone } from '../../changes/guards/steward-left.ts'
import { judge, proposedOf } from '../../changes/judge.ts'
import { noActions } from '../../levels/action.ts'
import { levelActions } from '../../levels/level.ts'
import { snapshotOf } from '../../state/snapshot.ts'
import { after, edit, editor, giving, levelOf, reader, refusal, steward } from '../judging.ts'
import { broken, grant, holding, limit, member, node, now, type Part, person, team, world } from '../world.ts'

/** Changes, their rights and their guards: what the contract says, row by row. */

const curator = levelActions('Curator')
const adder = levelActions('Adder')

/** One member a level, all given at `a`. */
const levels = ['Reader', 'Commenter', 'Adder', 'Editor', 'Curator', 'Steward'] as const
const home: Part[] = [
  ...levels.flatMap(level => [person(level), grant('a', `person:${level}`, levelActions(level))]),
  person('p'),
  node('a', 'root'),
  node('b', 'a', { maker: 'Adder' as PersonId }),
  node('c', 'a'),
  node('old', 'a', { archived: true }),
  node('gone', 'a', { binned: { by: 'owner' as PersonId, at: 0 } }),
  node('closed', 'a', broken),
  grant('closed', 'person:Steward', steward),
  grant('b', 'person:p', reader),
  limit('b', 'person:p', editor),
]
const state = world(...home)
const lim = { sparesStewards: true, from: null, until: null }

/** From which level on each edit is allowed. */
const table: readonly [name: string, from: (typeof levels)[number], edits: Edit[]][] = [
  ['grant added', 'Steward', [giving('c', 'person:p', reader)]],
  ['grant raised', 'Steward', [edit('grant.change', { grant: 'b person:p', gives: editor })]],
  ['grant ended', 'Steward', [edit('grant.end', { grant: 'b person:p' })]],
  [
    'limit added',
    'Steward',
    [edit('limit.add', { limit: 'l', node: 'b', principal: 'guests', allows: noActions, ...lim })],
  ],
  ['limit lifted', 'Steward', [edit('limit.end', { limit: 'b person:p' })]],
  ['break', 'Steward', [edit('node.break', { node: 'c', mode: 'empty', copies: 'x' })]],
  ['restore', 'Steward', [edit('node.restore', { node: 'closed', drop: 'own' })]],
  ['create', 'Adder', [edit('node.create', { node: 'n', parent: 'a', as: 'page', name: 'N' })]],
  ['edit one’s own content', 'Adder', [edit('node.describe', { node: 'b', name: 'N' })]],
  ['edit content', 'Editor', [edit('node.describe', { node: 'c', name: 'N' })]],
  ['draft', 'Editor', [edit('node.state', { node: 'c', draft: true })]],
  ['delete for good', 'Steward', [edit('node.delete', { node: 'gone' })]],
  ['archive', 'Curator', [edit('node.state', { node: 'c', archived: true })]],
  ['bring back from the archive', 'Curator', [edit('node.state', { node: 'old', archived: false })]],
  ['bin', 'Curator', [edit('node.state', { node: 'c', binned: true })]],
  ['bring back from the bin', 'Curator', [edit('node.state', { node: 'gone', binned: false })]],
  ['order', 'Curator', [edit('node.order', { node: 'b', order: 1 })]],
  ['move', 'Curator', [edit('node.move', { node: 'b', parent: 'c' })]],
  ['duplicate', 'Adder', [edit('node.duplicate', { node: 'c', parent: 'b', name: 'N', copies: 'x' })]],
  ['publish', 'Steward', [edit('node.web', { node: 'c', web: 'published' })]],
]

test.each(table)('%s needs what %s has', (_, from, edits) => {
  const rank = (level: (typeof levels)[number]) => levels.indexOf(level)
  const may = levels.filter(level => {
    // The maker of b edits it with add; whoever else is that low does not.
    const isOwn = level === 'Adder' || rank(level) >= rank('Editor')
    return refusal(state, level, ...edits) === 'allowed' && (isOwn || from !== 'Adder')
  })
  expect(may).toEqual(levels.filter(level => rank(level) >= rank(from)))
})

/** For each privilege somebody whose only role holds it. */
const withPrivilege = (privilege: string) => [
  person('by'),
  holding('by', `role-${privilege}`),
  {
    table: 'roles',
    row: {
      id: `role-${privilege}`,
      name: 'R',
      note: '',
      rank: 50,
      privileges: [privilege, 'view people'],
      addressable: false,
      builtIn: false,
      seatExempt: false,
    },
  } as unknown as Part,
]

const byPrivilege: readonly [privilege: string, edits: Edit[]][] = [
  ['create homes', [edit('home.create', { node: 'h', name: 'H' }), giving('h', 'person:p', steward)]],
  [
    'create teams',
    [
      edit('team.create', {
        team: 't2',
        home: 'h2',
        name: 'T',
        note: '',
        joining: 'open',
        welcomesGuests: false,
      }),
      edit('member.add', { membership: 'm', team: 't2', person: 'by', lead: true, from: null, until: null }),
      giving('h2', 'leads:t2', steward),
      giving('h2', 'team:t2', adder),
      edit('channel.create', { channel: 'ch', team: 't2', name: 'General', note: '', only: null }),
    ],
  ],
  [
    'create channels',
    [edit('channel.create', { channel: 'ch', team: 't', name: 'C', note: '', only: null })],
  ],
  ['moderate', [edit('channel.change', { channel: 'c1', archived: true })]],
  ['invite members', [inviting('member')]],
  ['invite guests', [inviting('guest')]],
  ['change seats', [edit('seats.change', { seats: 40 })]],
  ['manage any team', [edit('team.change', { team: 't', note: 'N' })]],
  [
    'manage any team',
    [edit('member.add', { membership: 'm', team: 't', person: 'p', lead: false, from: null, until: null })],
  ],
  ['archive any team', [edit('team.archive', { team: 't', archived: true })]],
  ['edit profiles', [edit('person.describe', { person: 'p', name: 'P' })]],
  ['suspend', [edit('person.suspend', { person: 'p' })]],
  ['suspend', [edit('person.end', { person: 'p', until: now + 5 })]],
  ['remove', [edit('person.remove', { person: 'p' })]],
  [
    'invite members',
    [
      edit('person.convert', {
        person: 'p',
        as: 'guest',
        taker: null,
        holding: 'h',
        folder: 'f',
        grant: 'g',
      }),
    ],
  ],
  ['edit levels', [edit('level.create', { level: 'l', name: 'L', note: '', actions: reader })]],
  ['security', [edit('workspace.change', { allowsPublishing: false })]],
  ['edit settings', [edit('workspace.change', { name: 'W' })]],
]

function inviting(as: string): Edit {
  const role = { role: null, scope: { over: 'workspace' }, until: null, linkUntil: now + 5, message: '' }
  return edit('person.invite', {
    person: 'new',
    invitation: 'new',
    holding: 'new',
    mail: 'new@t.example',
    name: '',
    as,
    ...role,
  })
}

test.each(byPrivilege)('%s allows it, and nothing less does', (privilege, edits) => {
  const channel = {
    table: 'channels',
    row: { id: 'c1', team: 't', name: 'C', note: '', only: null, archived: false },
  }
  const parts = [person('p'), holding('p', 'role-member'), person('l'), team('t'), channel as Part]
  const led = [
    member('t', 'l', { lead: true }),
    node('hall', 'root', { home: { of: 'team', team: 't' as TeamId } }),
    grant('hall', 'leads:t', steward),
  ]
  expect(refusal(world(...parts, ...led, ...withPrivilege(privilege)), 'by', ...edits)).toBe('allowed')
  const other = privilege === 'view roles' ? 'moderate' : 'view roles'
  expect(refusal(world(...parts, ...led, ...withPrivilege(other)), 'by', ...edits)).not.toBe('allowed')
})

test('whoever makes a team leads it, or names an active lead, and may be Steward from that moment', () => {
  const parts = [...withPrivilege('create teams'), person('p'), person('off', { status: 'suspended' })]
  const made = (lead: string, ...more: Edit[]) =>
    refusal(
      world(...parts),
      'by',
      edit('team.create', {
        team: 't2',
        home: 'h2',
        name: 'T',
        note: '',
        joining: 'request',
        welcomesGuests: false,
      }),
      edit('member.add', { membership: 'm', team: 't2', person: lead, lead: true, from: null, until: null }),
      giving('h2', 'leads:t2', steward),
      ...more,
    )
  expect([made('by'), made('p')]).toEqual(['allowed', 'allowed'])
  expect(made('off')).toMatchObject({ code: 'no-steward-left' })
  expect(made('off', giving('h2', 'person:by', steward))).toBe('allowed')
})

test('a team that the directory keeps is filled by it alone; its leads are named here', () => {
  const parts = [
    person('l'),
    person('p'),
    person('q'),
    team('t', { keptByDirectory: true, joining: 'open' }),
    member('t', 'l', { lead: true }),
    member('t', 'p'),
  ]
  const kept = world(...parts)
  const adding = (who: string) =>
    edit('member.add', { membership: 'new', team: 't', person: who, lead: false, from: null, until: null })
  const taking = edit('member.remove', { team: 't', person: 'p' })
  for (const by of ['l', 'owner']) {
    expect(refusal(kept, by, adding('q'))).toMatchObject({ code: 'kept-by-directory' })
    expect(refusal(kept, by, taking)).toMatchObject({ code: 'kept-by-directory' })
    expect(refusal(kept, by, edit('member.change', { team: 't', person: 'p', lead: true }))).toBe('allowed')
  }
  expect(refusal(kept, 'q', adding('q'))).toMatchObject({ code: 'kept-by-directory' })
  expect(refusal(kept, 'p', taking)).toMatchObject({ code: 'kept-by-directory' })
  const letting = edit('team.change', { team: 't', keptByDirectory: false })
  expect(refusal(kept, 'l', letting)).toMatchObject({ privilege: 'directory' })
  expect(refusal(after(kept, 'owner', letting), 'l', taking)).toBe('allowed')
})

describe('giving up', () => {
  const own = world(
    person('p'),
    person('s'),
    holding('p', 'role-people-lead'),
    team('t'),
    member('t', 'p'),
    node('a', 'root'),
    grant('a', 'person:p', editor),
    grant('a', 'person:s', steward),
  )

  test('one’s own grant, membership or role needs nothing', () => {
    expect(refusal(own, 'p', edit('grant.end', { grant: 'a person:p' }))).toBe('allowed')
    expect(refusal(own, 'p', edit('member.remove', { team: 't', person: 'p' }))).toBe('allowed')
    expect(refusal(own, 'p', edit('role.unassign', { holding: 'p role-people-lead' }))).toBe('allowed')
  })

  test('does not leave a place without a steward', () => {
    expect(refusal(own, 's', edit('grant.end', { grant: 'a person:s' }))).toMatchObject({
      code: 'no-steward-left',
    })
  })
})

describe('no steward left', () => {
  const parts = [
    person('s'),
    person('pl'),
    holding('pl', 'role-administrator'),
    team('t'),
    member('t', 's', { lead: true }),
    node('a', 'root'),
    node('b', 'a'),
    node('c', 'a', broken),
    grant('a', 'person:s', steward),
    grant('c', 'leads:t', steward),
  ]

  test.each([
    ['suspending', edit('person.suspend', { person: 's' })],
    ['removing', edit('person.remove', { person: 's' })],
    ['an end', edit('person.end', { person: 's', until: now + 5 })],
  ])('%s is never refused for it: the places are told', (_, leaving) => {
    const before = snapshotOf(world(...parts), now)
    const set = { author: 'pl' as PersonId, reason: '', edits: [leaving] }
    const judged = judge(before, set)
    if (!judged.ok) throw new Error(JSON.stringify(judged.error))
    const whole = proposedOf(before, set, judged.value)
    const at =
      leaving.kind === 'person.end' ? { ...whole, after: snapshotOf(whole.after.state, now + 5) } : whole
    expect(leftAlone(at).sort()).toEqual(['a', 'c'])
  })

  test('faults that are there already block nothing that does not make them worse', () => {
    const alone = world(
      ...parts.filter(({ row }) => row.id !== 'a person:s'),
      grant('a', 'person:pl', editor),
    )
    expect(refusal(alone, 'pl', edit('node.describe', { node: 'b', name: 'N' }))).toBe('allowed')
    expect(refusal(alone, 'pl', edit('node.create', { node: 'n', parent: 'b', as: 'page', name: 'N' }))).toBe(
      'allowed',
    )
  })
})

describe('recovering access', () => {
  const parts = [
    person('admin'),
    holding('admin', 'role-administrator'),
    person('p'),
    person('off', { status: 'suspended' }),
    node('a', 'root'),
    node('b', 'a', broken),
    node('kept', 'root', { home: { of: 'person', person: 'off' as PersonId }, ...broken }),
    grant('a', 'person:off', steward),
    grant('b', 'person:off', steward),
    grant('kept', 'person:off', steward),
  ]
  const recovering = (at: string, more: object = {}) =>
    edit('access.recover', { node: at, taker: 'admin', grant: `r ${at}`, limits: [], ...more })

  test('makes somebody Steward where no active person has share, oneself included', () => {
    expect(refusal(world(...parts), 'p', recovering('a'))).toMatchObject({ privilege: 'recover access' })
    const got = after(world(...parts), 'admin', recovering('a'))
    expect([levelOf(got, 'admin', 'a'), levelOf(got, 'admin', 'b')]).toEqual(['Steward', 'No access'])
    expect(levelOf(after(world(...parts), 'admin', recovering('a', { taker: 'p' })), 'p', 'a')).toBe(
      'Steward',
    )
    expect(refusal(got, 'admin', recovering('a', { grant: 'again' }))).toMatchObject({ code: 'has-steward' })
    expect(refusal(world(...parts), 'admin', recovering('a', { taker: 'off' }))).toMatchObject({
      what: 'person',
    })
  })

  test('takes over in the same act in which the only steward leaves, and not from one who stays', () => {
    const here = parts.map(each => (each.row.id === 'off' ? person('off') : each))
    expect(refusal(world(...here), 'admin', recovering('a'))).toMatchObject({ code: 'has-steward' })
    const removing = edit('person.remove', { person: 'off' })
    expect(refusal(world(...here), 'admin', removing, recovering('a'), recovering('b'))).toBe('allowed')
    const round = [
      edit('person.suspend', { person: 'off' }),
      recovering('a'),
      edit('person.reactivate', { person: 'off' }),
    ]
    expect(refusal(world(...here), 'admin', ...round)).toMatchObject({ code: 'has-steward' })
  })

  test('lifts what stands against it, but never one’s own limit, and never reaches what is private', () => {
    const limited = (principal: 'everyone' | 'person:admin') =>
      world(...parts, limit('a', principal, reader, { sparesStewards: false }))
    const lifting = (principal: string) => recovering('b', { limits: [`a ${principal}`] })
    expect(levelOf(after(limited('everyone'), 'admin', lifting('everyone')), 'admin', 'b')).toBe('Steward')
    expect(refusal(limited('person:admin'), 'admin', lifting('person:admin'))).toEqual({ code: 'own-limit' })
    const apart = world(...parts, limit('kept', 'everyone'))
    expect(refusal(apart, 'admin', recovering('b', { limits: ['kept everyone'] }))).toMatchObject({
      what: 'limit',
    })
    expect(refusal(world(...parts), 'admin', recovering('kept'))).toEqual({ code: 'private' })
  })
})

describe('seats', () => {
  const free = {
    table: 'roles',
    row: {
      id: 'role-exempt',
      name: 'F',
      note: '',
      rank: 5,
      privileges: [],
      addressable: false,
      builtIn: false,
      seatExempt: true,
    },
  } as unknown as Part
  const parts = [
    free,
    person('m'),
    holding('m', 'role-member'),
    person('i', { status: 'invited' }),
    holding('i', 'role-member'),
    person('off', { status: 'suspended' }),
    person('g', { kind: 'guest' }),
    person('f'),
    holding('f', 'role-exempt'),
    node('a', 'root'),
    grant('a', 'person:owner', steward),
  ]
  const bought = (count: number) => after(world(...parts), 'owner', edit('seats.change', { seats: count }))
  const turning = edit('person.convert', {
    person: 'g',
    as: 'member',
    taker: null,
    holding: 'h',
    folder: 'f1',
    grant: 'g1',
  })

  test('members take one from the invitation on, guests and holders of exempt roles none', () => {
    // The owner, m, the invited and the suspended.
    expect(refusal(bought(4), 'owner', inviting('member'))).toEqual({ code: 'no-seat', free: 0, needed: 1 })
    expect(refusal(bought(5), 'owner', inviting('member'))).toBe('allowed')
    expect(refusal(bought(4), 'owner', inviting('guest'))).toBe('allowed')
    expect(refusal(bought(4), 'owner', turning)).toEqual({ code: 'no-seat', free: 0, needed: 1 })
    expect(refusal(bought(4), 'owner', edit('role.unassign', { holding: 'f role-exempt' }))).toMatchObject({
      code: 'no-seat',
    })
  })

  test('a removed person’s is free at once, a suspended one’s as the workspace has set', () => {
    const removing = edit('person.remove', { person: 'm' })
    expect(refusal(bought(4), 'owner', removing, inviting('member'))).toBe('allowed')
    const freeing = edit('seats.change', { suspendedHoldSeats: false })
    expect(refusal(bought(4), 'owner', freeing, inviting('member'))).toBe('allowed')
    expect(
      refusal(after(bought(3), 'owner', freeing), 'owner', edit('person.reactivate', { person: 'off' })),
    ).toMatchObject({
      code: 'no-seat',
    })
  })

  test('too many taken already blocks nothing that takes no more', () => {
    expect(refusal(bought(2), 'owner', edit('person.suspend', { person: 'm' }))).toBe('allowed')
  })
})

test('a move by which somebody gains needs share at the node', () => {
  const parts = [node('x', 'a'), node('y', 'c'), grant('c', 'person:p', reader)]
  const moving = edit('node.move', { node: 'x', parent: 'c' })
  expect(refusal(world(...home, ...parts), 'Curator', moving)).toMatchObject({ action: 'share' })
  expect(refusal(world(...home, ...parts), 'Steward', moving)).toBe('allowed')
})

test('a break is asked whether it keeps or starts empty; a restore what it drops', () => {
  const breaking = (mode: string) =>
    after(state, 'Steward', edit('node.break', { node: 'c', mode, copies: 'x' }))
  const people = (of: typeof state) => levels.filter(each => levelOf(of, each, 'c') !== 'No access')
  expect([people(breaking('keep')), people(breaking('empty'))]).toEqual([[...levels], ['Steward']])
  const kept = after(breaking('keep'), 'Steward', giving('c', 'person:p', curator))
  const left = (drop: string) =>
    allRows(after(kept, 'Steward', edit('node.restore', { node: 'c', drop })).grants).filter(
      each => each.node === 'c',
    ).length
  expect([left('copies'), left('none'), left('own')]).toEqual([1, levels.length + 1, 0])
  expect(rowOf(kept.grants, 'x-0' as GrantId)?.copiedFrom).toBe('a')
})
