import { describe, expect, test } from 'vitest'
import { allRows, rowOf } from '../../base/collection.ts'
import type { NodeId, PersonId, TeamId } from '../../base/ids.ts'
import type { UndoChangeSet } from '../../changes/intents/places.ts'
import { archiveTime } from '../../changes/edits/delete.ts'
import type { Edit } from '../../changes/edit.ts'
import { undoingOf } from '../../changes/undo.ts'
import { actions } from '../../levels/action.ts'
import { levelActions } from '../../levels/level.ts'
import { applyChanges, pathOf, type State } from '../../state/state.ts'
import { after, edit, editor, giving, judging, reader, refusal, steward } from '../judging.ts'
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

/** The state after some edits, and the edit that takes them back. */
function done(state: State, author: string, ...edits: Edit[]): { state: State; back: UndoChangeSet & Edit } {
  const result = judging(state, author, ...edits)
  if (!result.ok) throw new Error(JSON.stringify(result.error))
  const back = { kind: 'undo' as const, revision: 1, changes: result.value.changes, written: [] }
  return { state: result.value.state, back }
}

const leftOut = (state: State, back: UndoChangeSet) =>
  undoingOf(state, now, back).leftOut.map(each => `${each.change.id}: ${each.why}`)

const moving = (what: string, to: string) => edit('node.move', { node: what, parent: to })
const setting = (what: string, fields: object) => edit('node.state', { node: what, ...fields })
const making = (id: string, parent: string, as = 'page') =>
  edit('node.create', { node: id, parent, as, name: id })
const publishing = (id: string) => edit('node.web', { node: id, web: 'published' })

describe('no place ever stands in itself', () => {
  const home = world(
    person('m'),
    node('home', 'root'),
    node('a', 'home'),
    node('x', 'a'),
    grant('home', 'person:m', steward),
  )

  test('undoing a move leaves out what would close a ring, and says so', () => {
    const first = done(home, 'm', moving('x', 'home'))
    const second = after(first.state, 'm', moving('a', 'x'))
    expect(refusal(second, 'm', first.back)).toEqual({ code: 'nothing-to-undo' })
    expect(leftOut(second, first.back)).toEqual(['x: within itself'])
  })

  test('two moves that are taken back together may close one, too', () => {
    const swapped = done(
      after(home, 'm', making('b', 'x', 'folder'), making('c', 'home', 'folder')),
      'm',
      moving('b', 'home'),
      moving('c', 'b'),
    )
    const turned = after(swapped.state, 'm', moving('x', 'b'))
    const undone = after(turned, 'm', swapped.back)
    for (const { id } of allRows(undone.nodes)) expect(pathOf(undone, id).at(-1)?.kind).toBe('root')
    expect(leftOut(turned, swapped.back)).toEqual(['b: within itself'])
  })

  test('a state in which one does cannot be made', () => {
    const row = (id: string) => rowOf(home.nodes, id as NodeId)
    const [a] = [row('a')]
    const change = { table: 'nodes', id: 'a', before: a, after: { ...a, parent: 'x' } }
    expect(() => applyChanges(home, [change as never])).toThrow('in itself')
    const made = [
      { ...a, id: 'r1', parent: 'r2' },
      { ...a, id: 'r2', parent: 'r1' },
    ].map(after => ({ table: 'nodes', id: after.id, before: null, after }))
    expect(() => applyChanges(home, made as never)).toThrow('in itself')
  })
})

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
    edit('column.create', { column: 'c', board: 'root', name: 'C', order: 0, viewers: null, editors: null }),
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
    ['the only lead', [edit('member.take', { team: 't', person: 'lead' }), recovering('home')]],
    [
      'the lead’s leading',
      [edit('member.change', { team: 't', person: 'lead', lead: false }), recovering('home')],
    ],
    ['one’s own ending grant', [edit('grant.end', { grant: 'other person:admin' }), recovering('other')]],
    [
      'the lead’s standing as a member',
      [turning('lead'), edit('member.take', { team: 't', person: 'lead' }), recovering('home')],
    ],
  ])('%s', (_, edits) => {
    for (const order of [edits, edits.toReversed()])
      expect(refusal(state, 'admin', ...order)).toMatchObject({ code: 'has-steward' })
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

function turning(id: string, as = 'guest') {
  return edit('person.turn', { person: id, as, taker: null, holding: 'th', folder: 'tf', grant: 'tg' })
}

describe('undoing', () => {
  const base = [
    person('m'),
    person('g', { kind: 'guest' }),
    holding('m', 'role-member'),
    node('home', 'root'),
    node('a', 'home'),
    node('b', 'a'),
    grant('home', 'person:m', steward),
    grant('home', 'person:owner', steward),
  ]
  const state = world(...base)

  test('says what it leaves out since it lies in the bin, what is set there too', () => {
    const first = done(
      state,
      'm',
      edit('node.describe', { node: 'b', name: 'B' }),
      making('c', 'a'),
      giving('b', 'everyone', reader),
      edit('node.describe', { node: 'home', name: 'H' }),
    )
    const binned = after(first.state, 'm', setting('a', { binned: true }))
    expect(leftOut(binned, first.back).sort()).toEqual([
      'b everyone new: in the bin',
      'b: in the bin',
      'c: in the bin',
    ])
    expect(refusal(binned, 'm', first.back)).toBe('allowed')
    const ended = done(first.state, 'm', edit('grant.end', { grant: 'b everyone new' }))
    const later = after(ended.state, 'm', setting('a', { binned: true }))
    expect(leftOut(later, ended.back)).toEqual(['b everyone new: in the bin'])
  })

  test('brings back from the bin, and no more than that', () => {
    const gone = done(
      state,
      'm',
      edit('node.describe', { node: 'a', name: 'A' }),
      setting('a', { binned: true }),
    )
    expect(leftOut(gone.state, gone.back)).toEqual(['a: in the bin'])
    const back = after(gone.state, 'm', gone.back)
    expect(rowOf(back.nodes, 'a' as NodeId)).toMatchObject({ binned: null, name: 'A' })
  })

  test('publishes nothing against the policy, in an archive, or what an archive took from the web', () => {
    const published = after(state, 'm', publishing('a'))
    const withdrawn = done(published, 'm', edit('node.web', { node: 'a', web: null }))
    const closed = after(withdrawn.state, 'owner', edit('workspace.change', { allowsPublishing: false }))
    expect(refusal(closed, 'm', withdrawn.back)).toEqual({ code: 'publishing-off' })
    const archived = after(withdrawn.state, 'm', setting('home', { archived: true }))
    expect(leftOut(archived, withdrawn.back)).toEqual(['a: stays withdrawn'])
    const archiving = done(published, 'm', setting('home', { archived: true }))
    expect(leftOut(archiving.state, archiving.back)).toEqual(['a: stays withdrawn'])
    expect(rowOf(after(archiving.state, 'm', archiving.back).nodes, 'a' as NodeId)?.web).toBeNull()
    expect(refusal(state, 'm', setting('home', { archived: true }), publishing('a'))).toMatchObject({
      action: 'publish',
    })
  })

  test('gives no stewardship to who is a guest by now, and nothing to who was removed', () => {
    const member = world(...base, person('p'), holding('p', 'role-member'))
    const given = done(member, 'm', giving('a', 'person:p', steward))
    const taken = done(given.state, 'm', edit('grant.end', { grant: 'a person:p new' }))
    const guest = after(taken.state, 'owner', turning('p'))
    expect(refusal(guest, 'm', taken.back)).toMatchObject({ rule: 'no stewardship' })
    const removed = after(taken.state, 'owner', edit('person.remove', { person: 'p' }))
    expect(leftOut(removed, taken.back)).toEqual(['a person:p new: gone'])
    expect(refusal(removed, 'm', taken.back)).toEqual({ code: 'nothing-to-undo' })
  })

  test('makes no role the first one that outranks its author, and orders nothing in an archive', () => {
    const settings = role('settings', 50, 'edit settings', 'assign roles')
    const ranked = world(...base, settings, role('high', 70), holding('m', 'role-settings'))
    const set = after(ranked, 'owner', edit('workspace.change', { defaultRole: 'role-high' }))
    const back = done(set, 'owner', edit('workspace.change', { defaultRole: 'role-member' }))
    expect(refusal(back.state, 'm', back.back)).toMatchObject({ code: 'outranked' })
    const ordered = done(state, 'm', edit('node.order', { node: 'b', order: 5 }))
    const archived = after(ordered.state, 'm', setting('home', { archived: true }))
    expect(refusal(archived, 'm', ordered.back)).toMatchObject({ action: 'arrange' })
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
    const given = edit('role.give', {
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
