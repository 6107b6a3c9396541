import { expect, test } from 'vitest'
import { rowOf } from '../base/collection.ts'
import { always } from '../base/instant.ts'
import type { GrantId, LevelId, NodeId, PersonId } from '../base/ids.ts'
import { snapshotOf } from '../state/snapshot.ts'
import type { State } from '../state/state.ts'
import { after, edit, editor, giving, reader, refusal, steward, done } from '../tests/judging.ts'
import {
  broken,
  grant,
  holding,
  level,
  limit,
  member,
  node,
  now,
  person,
  team,
  world,
} from '../tests/world.ts'
import type { Edit } from './edit.ts'
import type { UndoChangeSet } from './edits/undo.ts'
import { judge } from './judge.ts'
import { scheduledTransitionsOf } from './scheduled.ts'
import { undoingOf } from './undo.ts'

const start = world(
  person('ada'),
  person('ben'),
  team('crew'),
  member('crew', 'ada', { lead: true }),
  node('home', 'root'),
  node('plan', 'home'),
  node('other', 'home'),
  grant('home', 'person:ada', steward),
  grant('home', 'person:ben', editor),
  grant('plan', 'person:owner', steward, { until: now + 10 }),
)

const leftOut = (state: State, back: UndoChangeSet, at = now) =>
  undoingOf(state, at, back).leftOut.map(each => [each.change.id, each.why])

test('a field that nobody set again goes back; one that was set again stays and is told', () => {
  const first = done(
    start,
    'ada',
    edit('grant.change', { grant: 'home person:ben', gives: reader, until: now + 50 }),
  )
  const later = after(first.state, 'ada', edit('grant.change', { grant: 'home person:ben', until: now + 70 }))
  expect(leftOut(later, first.back)).toEqual([['home person:ben', 'changed since']])
  const undone = after(later, 'ada', first.back)
  expect(rowOf(undone.grants, 'home person:ben' as GrantId)).toMatchObject({ gives: editor, until: now + 70 })
})

test('what has ended meanwhile is not brought back, nor an end that has passed', () => {
  const ended = done(start, 'owner', edit('grant.end', { grant: 'plan person:owner' }))
  const lengthened = done(start, 'ada', edit('grant.change', { grant: 'plan person:owner', until: null }))
  expect(leftOut(ended.state, ended.back, now + 10)).toEqual([['plan person:owner', 'over']])
  expect(leftOut(lengthened.state, lengthened.back, now + 10)).toEqual([['plan person:owner', 'over']])
  expect(leftOut(lengthened.state, lengthened.back)).toEqual([])
})

test('what was given by a level that was deleted since is not brought back', () => {
  const helper = world(
    person('ada'),
    level('helper', editor),
    node('home', 'root'),
    grant('home', 'person:owner', steward),
    grant('home', 'person:ada', 'helper' as LevelId),
  )
  const ended = done(helper, 'owner', edit('grant.end', { grant: 'home person:ada' }))
  expect(leftOut(ended.state, ended.back)).toEqual([])
  const without = after(ended.state, 'owner', edit('level.delete', { level: 'helper' }))
  expect(leftOut(without, ended.back)).toEqual([['home person:ada', 'gone']])
})

test('a place is unmade only while nothing is in it', () => {
  const first = done(
    start,
    'ben',
    edit('node.create', { node: 'new', parent: 'home', as: 'folder', name: 'New' }),
  )
  expect(rowOf(after(first.state, 'ben', first.back).nodes, 'new' as NodeId)).toBeUndefined()
  const filled = after(
    first.state,
    'ada',
    edit('node.create', { node: 'in it', parent: 'new', as: 'page', name: 'In it' }),
  )
  expect(refusal(filled, 'ben', first.back)).toEqual({ code: 'nothing-to-undo' })
  expect(leftOut(filled, first.back)).toEqual([['new', 'in use']])
  expect(leftOut(first.state, { ...first.back, written: ['new' as NodeId] })).toEqual([['new', 'in use']])
})

test('a team goes with all that came with it, or stays whole once others use it', () => {
  const making = done(
    start,
    'owner',
    edit('team.create', {
      team: 'new',
      home: 'new home',
      name: 'New',
      note: '',
      joining: 'open',
      welcomesGuests: false,
    }),
    edit('member.add', {
      membership: 'm',
      team: 'new',
      person: 'owner',
      lead: true,
      from: null,
      until: null,
    }),
    giving('new home', 'leads:new', steward),
  )
  const joined = after(
    making.state,
    'ben',
    edit('member.add', { membership: 'n', team: 'new', person: 'ben', lead: false, from: null, until: null }),
  )
  expect(leftOut(making.state, making.back)).toEqual([])
  const names = leftOut(joined, making.back).map(([id]) => id)
  expect(names).toContain('new')
  expect(names).not.toContain('n')
})

test('a role, a level, a board or a team that others use by now stays', () => {
  const fields = { name: 'N', note: '' }
  const channel = { channel: 'ch', team: 'new', ...fields, only: null }
  const role = { role: 'new', ...fields, rank: 5, privileges: [], addressable: false, seatExempt: false }
  const holding = { holding: 'h', person: 'ben', role: 'new', scope: { over: 'workspace' }, ...always }
  const column = {
    column: 'col',
    board: 'new',
    name: 'N',
    as: 'text',
    settings: {},
    order: 0,
    viewers: null,
    editors: null,
  } as const
  const cases: readonly (readonly [Edit[], Edit])[] = [
    [[edit('role.create', role)], edit('role.assign', holding)],
    [
      [edit('level.create', { level: 'new', ...fields, actions: reader })],
      giving('plan', 'person:ben', 'new' as never),
    ],
    [
      [edit('node.create', { node: 'new', parent: 'plan', as: 'board', name: 'N' })],
      edit('column.create', column),
    ],
    [
      [
        edit('team.create', { team: 'new', home: 'h', ...fields, joining: 'open', welcomesGuests: false }),
        giving('h', 'person:owner', steward),
      ],
      edit('channel.create', channel),
    ],
  ]
  for (const [edits, using] of cases) {
    const making = done(start, 'owner', ...edits)
    expect(leftOut(making.state, making.back)).toEqual([])
    expect(leftOut(after(making.state, 'owner', using), making.back)).toContainEqual(['new', 'in use'])
  }
})

test('what it stood on being gone, it does not return', () => {
  const state = world(
    person('ben'),
    node('home', 'root'),
    node('a', 'home'),
    grant('home', 'person:owner', steward),
  )
  const making = done(
    state,
    'owner',
    edit('node.create', { node: 'b', parent: 'home', as: 'folder', name: 'B' }),
  )
  const moving = done(making.state, 'owner', giving('b', 'person:ben', reader))
  const ended = done(moving.state, 'owner', edit('grant.end', { grant: 'b person:ben new' }))
  const unmade = after(ended.state, 'owner', making.back)
  expect(leftOut(unmade, ended.back)).toEqual([['b person:ben new', 'gone']])
})

test('undoing needs the rights of what it does, whoever undoes', () => {
  const lowered = done(start, 'ada', edit('grant.change', { grant: 'home person:ben', gives: reader }))
  expect(refusal(lowered.state, 'ben', lowered.back)).toMatchObject({
    code: 'action-missing',
    action: 'share',
  })
  const left = done(start, 'ada', edit('member.change', { team: 'crew', person: 'ada', lead: false }))
  expect(refusal(left.state, 'ada', left.back)).toMatchObject({ code: 'lead-missing' })
  const givenUp = done(start, 'ben', edit('grant.end', { grant: 'home person:ben' }))
  expect(refusal(givenUp.state, 'ben', givenUp.back)).toEqual({ code: 'nothing-to-undo' })
  expect(refusal(givenUp.state, 'ada', givenUp.back)).toBe('allowed')
})

test('a limit on oneself is not lifted by undoing, and undoing its lifting is taking', () => {
  const state = world(
    person('ada'),
    node('home', 'root'),
    grant('home', 'person:ada', steward),
    grant('home', 'person:owner', steward),
  )
  const limited = done(
    state,
    'ada',
    edit('limit.add', {
      limit: 'l',
      node: 'home',
      principal: 'person:owner',
      allows: reader,
      sparesStewards: true,
      from: null,
      until: null,
    }),
  )
  expect(refusal(limited.state, 'owner', limited.back)).toMatchObject({ code: 'action-missing' })
  const lifted = done(limited.state, 'ada', edit('limit.end', { limit: 'l' }))
  expect(refusal(lifted.state, 'ada', lifted.back)).toBe('allowed')
})

test('what the author cannot know of is passed over in silence', () => {
  const hidden = world(
    person('ada'),
    person('ben'),
    node('home', 'root'),
    node('secret', 'home', broken),
    grant('home', 'person:ada', steward),
    grant('home', 'person:owner', steward),
    grant('secret', 'person:owner', steward),
  )
  const both = done(
    hidden,
    'owner',
    giving('home', 'person:ben', reader),
    giving('secret', 'person:ben', reader),
  )
  const undone = after(both.state, 'ada', both.back)
  expect(rowOf(undone.grants, 'home person:ben new' as GrantId)).toBeUndefined()
  expect(rowOf(undone.grants, 'secret person:ben new' as GrantId)).toBeDefined()
})

test('an undo is undone like anything else', () => {
  const gone = done(start, 'ada', edit('node.break', { node: 'plan', mode: 'keep', copies: 'copy' }))
  const undone = done(gone.state, 'ada', gone.back)
  const again = after(undone.state, 'ada', undone.back)
  expect(rowOf(again.nodes, 'plan' as NodeId)?.broken).not.toBeNull()
  expect(rowOf(again.grants, 'copy-0' as GrantId)).toBeDefined()
})

test('suspending and withdrawing are undone with rank and the privilege; coming in is not undone', () => {
  const staff = world(
    person('ada'),
    holding('ada', 'role-people-lead'),
    person('ben'),
    holding('ben', 'role-member'),
    person('cy'),
    holding('cy', 'role-member'),
  )
  const suspended = done(staff, 'owner', edit('person.suspend', { person: 'ben' }))
  expect(refusal(suspended.state, 'cy', suspended.back)).toMatchObject({ code: 'privilege-missing' })
  expect(refusal(suspended.state, 'ada', suspended.back)).toBe('allowed')
  const invited = done(
    staff,
    'ada',
    edit('person.invite', {
      person: 'new',
      invitation: 'i',
      holding: 'h',
      mail: 'new@test.example',
      name: 'New',
      as: 'member',
      role: null,
      scope: { over: 'workspace' },
      until: null,
      linkUntil: now + 100,
      message: '',
    }),
  )
  const withdrawn = done(invited.state, 'ada', edit('invitation.withdraw', { person: 'new' }))
  expect(refusal(withdrawn.state, 'ben', withdrawn.back)).not.toBe('allowed')
  expect(refusal(withdrawn.state, 'ada', withdrawn.back)).toBe('allowed')
  const accept = edit('invitation.accept', {
    person: 'new',
    account: 'a',
    name: 'New',
    folder: 'f',
    grant: 'g',
  })
  const accepted = done(invited.state, 'new', accept)
  expect(refusal(accepted.state, 'owner', accepted.back)).toEqual({ code: 'never-undone' })
  expect(leftOut(accepted.state, invited.back)).toContainEqual(['new', 'changed since'])
})

test('a start or an end that passes is one event each, and what ended is gone from the state', () => {
  const state = world(
    person('ada', { until: now + 20 }),
    node('home', 'root'),
    grant('home', 'person:ada', reader, { from: now + 5, until: now + 10 }),
    limit('home', 'person:ada', reader, { until: now + 10 }),
    grant('home', 'person:owner', steward),
  )
  const passings = scheduledTransitionsOf(state, now, now + 30)
  expect(passings.map(each => [each.at - now, each.changes.map(change => change.id).sort()])).toEqual([
    [5, ['home person:ada']],
    [10, ['home person:ada', 'home person:ada']],
    [20, ['ada']],
  ])
  const last = passings.at(-1)?.state ?? state
  expect([last.grants.size, last.limits.size, last.persons.size]).toEqual([1, 0, 2])
  expect(scheduledTransitionsOf(last, now + 30, now + 99)).toEqual([])
  const set = { author: 'ada' as PersonId, reason: '', edits: [giving('home', 'person:ada', reader)] }
  expect(judge(snapshotOf(last, now + 30), set).ok).toBe(false)
})
