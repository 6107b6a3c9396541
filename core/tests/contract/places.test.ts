import { describe, expect, test } from 'vitest'
import { allRows, rowOf, rowsBy } from '../../base/collection.ts'
import type { NodeId, PersonId, TeamId } from '../../base/ids.ts'
import { scheduledTransitionsOf, nextDue } from '../../changes/scheduled.ts'
import { binTime } from '../../state/dates.ts'
import { actions, noActions } from '../../levels/action.ts'
import { levelActions } from '../../levels/level.ts'
import type { State } from '../../state/state.ts'
import { kindsWithin } from '../../tree/node.ts'
import { after, edit, editor, giving, levelOf, reader, refusal, steward } from '../judging.ts'
import { broken, grant, holding, limit, member, node, now, person, team, world } from '../world.ts'

/** Where, and what becomes of it: each sentence of what the contract says of the content tree. */

const commenter = levelActions('Commenter')
const curator = levelActions('Curator')

const making = (parent: string, as: string) =>
  edit('node.create', { node: `${as} new`, parent, as, name: 'N' })

test('each kind holds what the contract says, and nothing else', () => {
  const kinds = ['folder', 'board', 'row', 'page', 'file'] as const
  expect(Object.fromEntries(kinds.map(kind => [kind, kindsWithin(kind)]))).toEqual({
    folder: ['folder', 'board', 'page', 'file'],
    board: ['row'],
    row: ['page', 'file'],
    page: ['page', 'board', 'file'],
    file: [],
  })
  for (const kind of kinds) {
    const state = world(node('a', 'root', { kind }), grant('a', 'person:owner', steward))
    const allowed = kinds.filter(as => refusal(state, 'owner', making('a', as)) === 'allowed')
    expect([kind, allowed]).toEqual([kind, kinds.filter(as => kindsWithin(kind).includes(as))])
  }
})

describe('the whole workspace', () => {
  const state = world(person('m'), person('admin'), holding('admin', 'role-administrator'), node('a', 'root'))

  test('holds grants and limits, given and taken with the privilege security', () => {
    const toAll = giving('root', 'everyone', reader)
    expect(refusal(state, 'm', toAll)).toMatchObject({ code: 'unknown' })
    expect(refusal(state, 'admin', giving('root', 'person:m', reader))).toBe('allowed')
    const lim = edit('limit.add', {
      limit: 'l',
      node: 'root',
      principal: 'everyone',
      allows: noActions,
      sparesStewards: true,
      from: null,
      until: null,
    })
    const limited = after(state, 'admin', lim)
    expect(refusal(limited, 'm', edit('limit.end', { limit: 'l' }))).toMatchObject({ code: 'unknown' })
    expect(refusal(limited, 'owner', edit('limit.end', { limit: 'l' }))).toBe('allowed')
  })

  test('has homes under it and nothing else, and these do not move or go to the bin', () => {
    const home = world(node('a', 'root'), node('b', 'root'), grant('root', 'person:owner', steward))
    expect(refusal(home, 'owner', making('root', 'folder'))).toEqual({ code: 'unknown', what: 'place' })
    expect(refusal(home, 'owner', edit('node.move', { node: 'a', parent: 'b' }))).toMatchObject({
      code: 'fixed-place',
    })
    expect(refusal(home, 'owner', edit('node.state', { node: 'a', binned: true }))).toMatchObject({
      code: 'fixed-place',
    })
  })
})

test('a shared home is made with the privilege, and with named stewards', () => {
  const home = edit('home.create', { node: 'h', name: 'H' })
  const state = world(person('m'), holding('m', 'role-member'))
  expect(refusal(state, 'm', home)).toMatchObject({ privilege: 'create homes' })
  expect(refusal(state, 'owner', home)).toMatchObject({ code: 'no-steward-left', nodes: ['h'] })
  expect(refusal(state, 'owner', home, giving('h', 'person:m', steward))).toBe('allowed')
})

test('two grants to one principal at one node add up', () => {
  const two = [
    grant('a', 'person:p', actions('comment')),
    grant('a', 'person:p', actions('remove'), { id: 'second' as never }),
  ]
  const state = world(person('p'), node('a', 'root'), ...two)
  expect(levelOf(state, 'p', 'a')).toBe('Preview+')
  expect(refusal(state, 'p', edit('node.describe', { node: 'a', name: 'N' }))).toBe('allowed')
})

test('a limit of the empty set says no access', () => {
  const state = world(person('p'), node('a', 'root'), grant('a', 'person:p', editor), limit('a', 'person:p'))
  expect(levelOf(state, 'p', 'a')).toBe('No access')
})

describe('a draft', () => {
  const state = world(
    person('maker'),
    person('reader'),
    person('editor'),
    node('a', 'root'),
    node('b', 'a', { draft: true, maker: 'maker' as PersonId, kind: 'page' }),
    node('c', 'b', { kind: 'page' }),
    grant('a', 'person:maker', levelActions('Adder')),
    grant('a', 'person:reader', commenter),
    grant('a', 'person:editor', editor),
  )

  test('is seen by those who change or share it and by its maker; what is under it by all', () => {
    const seen = (who: string) => ['b', 'c'].map(at => levelOf(state, who, at))
    expect([seen('reader'), seen('maker'), seen('editor')]).toEqual([
      ['No access', 'Commenter'],
      ['Adder', 'Adder'],
      ['Editor', 'Editor'],
    ])
  })

  test('is released by those who may edit it', () => {
    const releasing = edit('node.state', { node: 'b', draft: false })
    expect(['reader', 'maker', 'editor'].map(who => refusal(state, who, releasing) === 'allowed')).toEqual([
      false,
      true,
      true,
    ])
    expect(levelOf(after(state, 'maker', releasing), 'reader', 'b')).toBe('Commenter')
  })
})

test('one’s own things are edited with add, those of others with change', () => {
  const state = world(
    person('p'),
    node('a', 'root', { kind: 'board' }),
    node('own', 'a', { kind: 'row', maker: 'p' as PersonId }),
    node('other', 'a', { kind: 'row' }),
    grant('a', 'person:p', levelActions('Adder')),
  )
  const naming = (at: string) => refusal(state, 'p', edit('node.describe', { node: at, name: 'N' }))
  expect([naming('own'), naming('other')]).toEqual(['allowed', expect.objectContaining({ action: 'change' })])
})

describe('the bin', () => {
  const parts = [
    person('c'),
    person('s'),
    node('a', 'root'),
    node('b', 'a'),
    node('c1', 'b', broken),
    grant('a', 'person:s', steward),
    grant('a', 'person:c', curator),
    grant('c1', 'person:s', steward),
    limit('c1', 'everyone', reader),
  ]
  const binned = after(world(...parts), 's', edit('node.state', { node: 'b', binned: true }))
  const deleting = edit('node.delete', { node: 'b' })
  const left = (state: State) => [
    allRows(state.nodes).map(each => each.id),
    rowsBy(state.grants, 'node', 'c1').length + rowsBy(state.limits, 'node', 'c1').length,
  ]

  test('keeps by whom and since when, and takes nothing twice', () => {
    expect(rowOf(binned.nodes, 'b' as NodeId)?.binned).toEqual({ by: 's', at: now })
    const again = after(binned, 's', edit('node.state', { node: 'b', binned: false }))
    expect(rowOf(again.nodes, 'b' as NodeId)?.binned).toBe(null)
  })

  test('is emptied by those with seal, with all that is in it and all that is set there, for good', () => {
    expect(refusal(binned, 'c', deleting)).toMatchObject({ action: 'seal' })
    expect(refusal(world(...parts), 's', deleting)).toMatchObject({ code: 'unknown' })
    expect(refusal(binned, 's', edit('node.delete', { node: 'c1' }))).toMatchObject({ code: 'unknown' })
    const gone = after(binned, 's', deleting)
    expect(left(gone)).toEqual([expect.not.arrayContaining(['b', 'c1']), 0])
    const changes = allRows(binned.nodes)
      .filter(each => each.id === 'b')
      .map(before => ({ table: 'nodes', id: before.id, before, after: null }))
    expect(refusal(gone, 's', edit('undo', { revision: 1, changes, written: [] }))).toEqual({
      code: 'never-undone',
    })
  })

  test('empties itself after thirty days', () => {
    expect(nextDue(binned, now)).toBe(now + binTime)
    expect(scheduledTransitionsOf(binned, now, now + binTime - 1)).toEqual([])
    const [passing] = scheduledTransitionsOf(binned, now, now + binTime)
    expect(passing?.at).toBe(now + binTime)
    expect(left(passing?.state ?? binned)).toEqual([expect.not.arrayContaining(['b', 'c1']), 0])
  })
})

describe('duplicating', () => {
  const parts = [
    person('p'),
    person('s'),
    node('a', 'root'),
    node('b', 'a', { note: 'n', web: 'published' }),
    node('open', 'b', { web: 'excluded', order: 1 }),
    node('closed', 'b', { ...broken, order: 2 }),
    node('hidden', 'b', { ...broken, order: 3 }),
    node('under', 'hidden'),
    node('goal', 'root'),
    grant('a', 'person:s', steward),
    grant('a', 'person:p', reader),
    grant('closed', 'person:p', reader),
    grant('closed', 'person:s', steward),
    grant('hidden', 'person:s', steward),
    grant('under', 'person:p', reader),
    limit('b', 'guests', reader),
    grant('goal', 'person:p', steward),
    grant('goal', 'person:p', editor, { until: now + 50, id: 'ending' as never }),
    grant('goal', 'person:s', editor),
    grant('goal', 'person:owner', steward),
  ]
  const copying = (parent = 'goal', at = 'b') =>
    edit('node.duplicate', { node: at, parent, name: 'Copy', copies: 'new' })
  const copied = after(world(...parts), 'p', copying())
  const copies = allRows(copied.nodes).filter(each => each.id.startsWith('new-'))

  test('needs copy at the place and add at the target', () => {
    expect(refusal(world(...parts, limit('b', 'person:p', actions('see'))), 'p', copying())).toMatchObject({
      action: 'copy',
    })
    expect(refusal(world(...parts), 'p', copying('a'))).toMatchObject({ action: 'add' })
    expect(refusal(world(...parts), 'p', copying('goal', 'a'))).toBe('allowed')
  })

  test('takes what the author may copy, in its order, and nothing below what is hidden', () => {
    expect(copies.map(({ id, name, parent, note }) => [id, name, parent, note]).sort()).toEqual([
      ['new-0', 'Copy', 'goal', 'n'],
      ['new-1', 'open', 'new-0', ''],
      ['new-2', 'closed', 'new-0', ''],
    ])
    expect(copies.every(each => each.maker === 'p' && each.madeAt === now)).toBe(true)
  })

  test('limits, breaks and exclusions travel; grants and what is published never', () => {
    expect(rowsBy(copied.limits, 'node', 'new-0').map(each => each.principal)).toEqual(['guests'])
    expect(copies.map(each => [each.id, each.broken !== null, each.web]).sort()).toEqual([
      ['new-0', false, null],
      ['new-1', false, 'excluded'],
      ['new-2', true, null],
    ])
  })

  test('where a break travels the author gets what the author has at the target, for as long', () => {
    const given = rowsBy(copied.grants, 'node', 'new-2')
    expect(given.map(each => [each.principal, each.gives, each.until]).sort()).toEqual([
      ['person:p', steward, null],
      ['person:p', editor, now + 50],
    ])
    expect(['p', 's', 'owner'].map(who => levelOf(copied, who, 'new-2'))).toEqual([
      'Steward',
      'No access',
      'No access',
    ])
    const ending = parts.filter(({ row }) => row.id !== 'goal person:p')
    const short = grant('goal', 'person:p', steward, { until: now + 50 })
    expect(refusal(world(...ending, short), 'p', copying())).toMatchObject({
      code: 'no-steward-left',
      when: 'after ends',
    })
  })
})

test('archiving takes change away but not sharing, by the place or by its team, and is taken back by remove', () => {
  const home = { home: { of: 'team', team: 't' as TeamId } } as const
  const parts = [person('c'), person('s'), member('t', 'c'), node('a', 'root', home), node('b', 'a')]
  const given = [grant('a', 'person:c', curator), grant('a', 'person:s', steward)]
  const byPlace = after(
    world(...parts, team('t'), ...given),
    'c',
    edit('node.state', { node: 'a', archived: true }),
  )
  const byTeam = world(...parts, team('t', { archived: true }), ...given)
  for (const state of [byPlace, byTeam]) {
    expect(levelOf(state, 'c', 'b')).toBe('Reader')
    expect(refusal(state, 'c', making('b', 'page'))).toMatchObject({ action: 'add' })
    expect(refusal(state, 's', giving('b', 'person:c', reader))).toBe('allowed')
  }
  expect(refusal(byPlace, 'c', edit('node.state', { node: 'a', archived: false }))).toBe('allowed')
})
