import { describe, expect, test } from 'vitest'
import { allRows, rowOf } from '../../base/collection.ts'
import type { NodeId, PersonId, TeamId } from '../../base/ids.ts'
import { archiveTime } from '../../changes/edits/delete.ts'
import type { Edit } from '../../changes/edit.ts'
import { actions } from '../../levels/action.ts'
import { levelActions } from '../../levels/level.ts'
import type { State } from '../../state/state.ts'
import {
  after,
  done,
  edit,
  editor,
  giving,
  making,
  publishing,
  reader,
  refusal,
  setting,
  steward,
  turning,
} from '../judging.ts'
import {
  grant,
  holding,
  level,
  limit,
  member,
  node,
  now,
  type Part,
  person,
  role,
  team,
  workspace,
  world,
} from '../world.ts'

/** What the contract settles since its first version, and what attackers found open. */

const adder = levelActions('Adder')

describe('on the root stand grants and limits alone', () => {
  const state = world(
    role('guard', 90, 'security'),
    person('m'),
    holding('m', 'role-guard'),
    grant('root', 'person:owner', steward),
    node('home', 'root'),
  )
  const edits: readonly Edit[] = [
    setting('root', { binned: true }),
    setting('root', { archived: true }),
    setting('root', { draft: true }),
    edit('node.break', { node: 'root', mode: 'keep', copies: 'copy' }),
    edit('node.web', { node: 'root', web: 'published' }),
    edit('node.describe', { node: 'root', name: 'R' }),
    edit('node.order', { node: 'home', order: 1 }),
    edit('node.duplicate', { node: 'root', parent: 'home', name: 'R', copies: 'dup' }),
    edit('node.delete', { node: 'root' }),
    edit('column.create', {
      as: 'text',
      settings: {},
      column: 'c',
      board: 'root',
      name: 'C',
      order: 0,
      viewers: null,
      editors: null,
    }),
    edit('watch.begin', { watch: 'w', node: 'root' }),
    making('n', 'root', 'folder'),
  ]
  test.each(edits.map(each => [each.kind, JSON.stringify(each), each] as const))('%s %s', (_, __, each) => {
    for (const who of ['owner', 'm']) expect(refusal(state, who, each)).toMatchObject({ code: 'unknown' })
  })

  test('and undoing sets nothing else there', () => {
    const root = rowOf(state.nodes, 'root' as NodeId)
    const fields = [
      { archived: true },
      { binned: { by: 'm', at: 1 } },
      { broken: { by: 'm', at: 1 } },
      { name: 'R' },
    ]
    for (const before of [...fields, { web: 'published' }, { draft: true }]) {
      const changes = [{ table: 'nodes', id: 'root', before: { ...root, ...before }, after: root }]
      const back = edit('undo', { revision: 1, changes, written: [] })
      expect([before, refusal(state, 'm', back)]).toEqual([before, { code: 'nothing-to-undo' }])
    }
    expect(refusal(state, 'm', giving('root', 'person:owner', steward))).toBe('allowed')
  })
})

describe('teams', () => {
  const state = world(
    person('manager'),
    role('manager', 50, 'manage any team'),
    holding('manager', 'role-manager'),
    person('keeper'),
    role('keeper', 50, 'archive any team'),
    holding('keeper', 'role-keeper'),
    person('lead'),
    team('t'),
    member('t', 'lead', { lead: true }),
    team('kept', { keptByDirectory: true }),
    member('kept', 'lead', { lead: true }),
    member('kept', 'keeper'),
  )
  const archiving = (archived: boolean) => edit('team.archive', { team: 't', archived })

  test('are archived and brought back by a lead or *archive any team*, also by undo', () => {
    expect(refusal(state, 'manager', archiving(true))).toEqual({
      code: 'privilege-missing',
      privilege: 'archive any team',
    })
    for (const who of ['keeper', 'lead']) {
      const archived = done(state, who, archiving(true))
      expect(refusal(archived.state, 'manager', archiving(false))).toMatchObject({
        privilege: 'archive any team',
      })
      expect(refusal(archived.state, 'manager', archived.back)).toMatchObject({
        privilege: 'archive any team',
      })
      expect(refusal(archived.state, 'keeper', archived.back)).toBe('allowed')
    }
  })

  test('that a directory keeps name leads here, and nothing else of who is in', () => {
    const changing = (fields: object) => edit('member.change', { team: 'kept', person: 'keeper', ...fields })
    expect(refusal(state, 'lead', changing({ until: now + 5 }))).toMatchObject({ code: 'kept-by-directory' })
    const named = done(state, 'lead', changing({ lead: true }))
    expect(refusal(named.state, 'lead', named.back)).toBe('allowed')
    const given = done(state, 'owner', edit('team.change', { team: 't', keptByDirectory: true }))
    expect(refusal(given.state, 'lead', given.back)).toMatchObject({ privilege: 'directory' })
  })

  test('that are open are joined beside whatever else one may do, and no further than a member', () => {
    const open = world(
      person('m'),
      holding('m', 'role-member'),
      team('crew', { joining: 'open' }),
      node('n', 'root'),
      node('mine', 'root'),
      grant('n', 'team:crew', editor),
      grant('n', 'leads:crew', steward),
      grant('mine', 'person:m', steward),
    )
    const joining = (lead: boolean) =>
      edit('member.add', { membership: 'j', team: 'crew', person: 'm', lead, from: null, until: null })
    const other = edit('node.describe', { node: 'mine', name: 'M' })
    expect(refusal(open, 'm', joining(false), other)).toBe('allowed')
    expect(refusal(open, 'm', other, joining(false))).toBe('allowed')
    expect(refusal(open, 'm', joining(true), other)).not.toBe('allowed')
    const leads = world(...asParts(open), member('crew', 'm', { lead: true, until: now + 5 }))
    const longer = edit('member.change', { team: 'crew', person: 'm', until: null })
    expect(refusal(leads, 'm', longer, other)).toMatchObject({ code: 'own-raise' })
  })
})

const asParts = (state: State): Part[] =>
  (['persons', 'holdings', 'teams', 'nodes', 'grants'] as const).flatMap(table =>
    allRows(state[table] as State['nodes'])
      .filter(({ id }) => !['owner', 'root', 'owner role-owner'].includes(id))
      .map(row => ({ table, row }) as unknown as Part),
  )

describe('access is not recovered by taking it from somebody first', () => {
  const state = world(
    person('admin'),
    holding('admin', 'role-administrator'),
    person('lead'),
    team('t'),
    member('t', 'lead', { lead: true }),
    node('home', 'root', { home: { of: 'team', team: 't' as TeamId } }),
    grant('home', 'leads:t', steward),
    node('other', 'root'),
    grant('other', 'person:admin', steward, { until: now + 5 }),
  )
  const recovering = (at: string) =>
    edit('access.recover', { node: at, taker: 'admin', grant: 'r', limits: [] })
  test.each([
    ['the only lead', [edit('member.remove', { team: 't', person: 'lead' }), recovering('home')]],
    [
      'the lead’s leading',
      [edit('member.change', { team: 't', person: 'lead', lead: false }), recovering('home')],
    ],
    ['one’s own ending grant', [edit('grant.end', { grant: 'other person:admin' }), recovering('other')]],
    [
      'the lead’s place as a member',
      [turning('lead'), edit('member.remove', { team: 't', person: 'lead' }), recovering('home')],
    ],
  ])('%s', (_, edits) => {
    for (const order of [edits, edits.toReversed()])
      expect(refusal(state, 'admin', ...order)).toMatchObject({ code: 'has-steward' })
  })

  test('nor where the same act brings back somebody who has it', () => {
    const away = after(state, 'owner', edit('person.suspend', { person: 'lead' }))
    expect(refusal(away, 'admin', recovering('home'))).toBe('allowed')
    const back = edit('person.reactivate', { person: 'lead' })
    for (const order of [
      [back, recovering('home')],
      [recovering('home'), back],
    ])
      expect(refusal(away, 'admin', ...order)).toMatchObject({ code: 'has-steward' })
  })

  test('but whoever is suspended or removed in the same act may be followed', () => {
    for (const leaving of ['person.suspend', 'person.remove'] as const)
      for (const order of [
        [edit(leaving, { person: 'lead' }), recovering('home')],
        [recovering('home'), edit(leaving, { person: 'lead' })],
      ])
        expect(refusal(state, 'admin', ...order)).toBe('allowed')
  })
})

describe('guests', () => {
  test('hold no stewardship by a level that comes to give it', () => {
    const state = world(
      person('g', { kind: 'guest' }),
      level('own', reader),
      node('n', 'root'),
      grant('n', 'person:owner', steward),
      grant('n', 'person:g', 'own' as never),
    )
    const raising = edit('level.change', { level: 'own', actions: actions('share') })
    expect(refusal(state, 'owner', raising)).toMatchObject({ rule: 'no stewardship', person: 'g' })
    expect(refusal(after(state, 'owner', edit('grant.end', { grant: 'n person:g' })), 'owner', raising)).toBe(
      'allowed',
    )
  })

  test('are judged as the whole set leaves them, in whichever order', () => {
    const state = world(person('g', { kind: 'guest' }), holding('g', 'role-guest'), role('x', 10))
    const given = edit('role.assign', {
      holding: 'h',
      person: 'g',
      role: 'role-x',
      scope: { over: 'workspace' },
      from: null,
      until: null,
    })
    for (const order of [
      [given, turning('g', 'member')],
      [turning('g', 'member'), given],
    ])
      expect(refusal(state, 'owner', ...order)).toBe('allowed')
    expect(refusal(state, 'owner', given)).toMatchObject({ rule: 'no role' })
  })

  test('who stand where none may are suspended, ended and renamed all the same', () => {
    const state = world(
      person('g', { kind: 'guest' }),
      team('t'),
      member('t', 'g'),
      person('h', { kind: 'guest' }),
    )
    for (const each of [
      edit('person.suspend', { person: 'g' }),
      edit('person.end', { person: 'g', until: now + 5 }),
      edit('person.describe', { person: 'g', name: 'G' }),
      edit('team.archive', { team: 't', archived: true }),
      edit('team.change', { team: 't', name: 'T' }),
    ])
      expect([each.kind, refusal(state, 'owner', each)]).toEqual([each.kind, 'allowed'])
    const adding = edit('member.add', {
      membership: 'x',
      team: 't',
      person: 'h',
      lead: false,
      from: null,
      until: null,
    })
    expect(refusal(state, 'owner', adding)).toMatchObject({ rule: 'not welcome', person: 'h' })
    expect(
      refusal(state, 'owner', edit('member.change', { team: 't', person: 'g', lead: true })),
    ).toMatchObject({
      rule: 'leads no team',
    })
  })
})

describe('what is made in a set', () => {
  const state = world(
    person('m'),
    node('n', 'root'),
    grant('n', 'person:m', adder),
    grant('n', 'person:owner', steward),
    limit('n', 'person:m'),
  )
  const free = world(
    person('m'),
    node('n', 'root'),
    grant('n', 'person:m', adder),
    grant('n', 'person:owner', steward),
  )

  test('is its author’s own in the rest of it', () => {
    const writing = edit('node.describe', { node: 'p', note: 'N' })
    expect(refusal(free, 'm', making('p', 'n'), writing, setting('p', { draft: true }))).toBe('allowed')
    expect(refusal(state, 'm', making('p', 'n'), writing)).toMatchObject({ what: 'place' })
  })

  test('is compared with the nearest place that existed, by which it may have nobody', () => {
    const alone = world(person('m'), node('n', 'root'), grant('n', 'person:m', adder))
    expect(refusal(alone, 'm', making('p', 'n'), making('q', 'p'), making('r', 'q'))).toBe('allowed')
    const kept = world(person('m'), node('n', 'root'), grant('n', 'person:m', steward))
    const closing = edit('limit.add', {
      limit: 'l',
      node: 'q',
      principal: 'everyone',
      allows: 0,
      sparesStewards: false,
      from: null,
      until: null,
    })
    expect(refusal(kept, 'm', making('p', 'n'), making('q', 'p'), closing)).toMatchObject({
      code: 'no-steward-left',
      nodes: ['q'],
    })
  })

  test('names but the topmost of the places concerned', () => {
    const kept = world(
      person('m'),
      node('n', 'root'),
      node('p', 'n'),
      node('q', 'p', { draft: true }),
      grant('n', 'person:m', steward),
    )
    expect(refusal(kept, 'm', edit('grant.end', { grant: 'n person:m' }))).toMatchObject({
      code: 'no-steward-left',
      nodes: ['n'],
    })
  })
})

test('an archive releases no draft, whatever else one says in the same breath', () => {
  const state = world(
    node('n', 'root', { archived: true }),
    node('p', 'n', { draft: true }),
    grant('n', 'person:owner', steward),
  )
  for (const archived of [true, false])
    expect(refusal(state, 'owner', setting('p', { archived, draft: false }))).toMatchObject({
      action: 'change',
    })
})

test('somebody who is not active makes no change set at all', () => {
  const state = world(
    person('m', { status: 'suspended' }),
    person('late', { from: now + 5 }),
    node('n', 'root'),
    grant('n', 'person:m', steward),
  )
  for (const who of ['m', 'late', 'nobody'])
    expect(refusal(state, who, edit('grant.end', { grant: 'n person:m' }))).toEqual({ code: 'not-active' })
})

test('a shared home goes for good after thirty days in the archive, by who has seal there', () => {
  const home = (archivedAt: number | null) =>
    world(
      person('m'),
      person('reader'),
      node('h', 'root', { archived: true, archivedAt }),
      node('p', 'h'),
      grant('h', 'person:m', steward),
      grant('h', 'person:reader', reader),
    )
  const old = home(now - archiveTime)
  const deleting = edit('node.delete', { node: 'h' })
  expect(refusal(home(now - archiveTime + 1), 'm', deleting)).toEqual({ code: 'too-early', what: 'home' })
  expect(refusal(home(null), 'm', deleting)).toEqual({ code: 'too-early', what: 'home' })
  expect(refusal(old, 'reader', deleting)).toMatchObject({ action: 'seal' })
  const gone = done(old, 'm', deleting)
  expect(allRows(gone.state.nodes).map(each => each.id)).toEqual(['root'])
  expect(refusal(gone.state, 'owner', gone.back)).toEqual({ code: 'never-undone' })
  const archived = after(home(null), 'm', setting('h', { archived: false }), setting('h', { archived: true }))
  expect(rowOf(archived.nodes, 'h' as NodeId)?.archivedAt).toBe(now)
})

test('policies count as the set leaves them', () => {
  const state = world(
    workspace({ allowsPublishing: false }),
    node('n', 'root'),
    grant('n', 'person:owner', steward),
  )
  expect(refusal(state, 'owner', publishing('n'))).toEqual({ code: 'publishing-off' })
  const allowing = edit('workspace.change', { allowsPublishing: true })
  expect(refusal(state, 'owner', publishing('n'), allowing)).toBe('allowed')
})

test('everybody who is removed takes along what names them', () => {
  const state = world(
    person('p'),
    node('n', 'root'),
    grant('n', 'person:owner', steward),
    grant('n', 'person:p', reader),
  )
  const removed = after(state, 'owner', edit('person.remove', { person: 'p' }))
  expect(rowOf(removed.persons, 'p' as PersonId)?.status).toBe('removed')
  expect(allRows(removed.grants).map(each => each.principal)).toEqual(['person:owner'])
})
