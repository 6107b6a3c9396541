import { expect, test } from 'vitest'
import { allRows, rowOf } from '../base/collection.ts'
import type { ChannelId, ColumnId, NodeId, TeamId } from '../base/ids.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { after, edit, reader, refusal, steward } from '../tests/judging.ts'
import { grant, holding, member, node, now, person, role, team, world } from '../tests/world.ts'
import { archiveTime } from './edits/delete.ts'
import { auditEventsOf } from './audit-event.ts'
import { judge } from './judge.ts'

const parts = [
  team('t', { archived: true, archivedAt: now - archiveTime }),
  team('u', { archived: true, archivedAt: now - archiveTime + 1 }),
  person('lead'),
  member('t', 'lead', { lead: true }),
  person('p'),
  member('t', 'p'),
  role('help', 20, 'suspend'),
  holding('p', 'role-help', { over: 'team', team: 't' as never }),
  node('home', 'root', { home: { of: 'team', team: 't' as never } }),
  node('in', 'home'),
  grant('home', 'leads:t', steward),
  grant('home', 'person:owner', steward),
  node('elsewhere', 'root'),
  grant('elsewhere', 'team:t', reader),
  grant('elsewhere', 'person:owner', steward),
  node('board', 'elsewhere', { kind: 'board' }),
  {
    table: 'columns',
    row: {
      id: 'c' as ColumnId,
      board: 'board' as NodeId,
      name: 'C',
      kind: 'text',
      settings: {},
      former: [],
      order: 0,
      viewers: ['team:t'],
      editors: null,
    },
  } as const,
  {
    table: 'channels',
    row: {
      id: 'of-u' as ChannelId,
      team: 'u' as TeamId,
      name: 'Of u',
      note: '',
      only: ['leads:t', 'person:p'],
      archived: false,
    },
  } as const,
]
const state = world(...parts)
const deleting = (of: string) => edit('team.delete', { team: of })

test('a team goes for good after thirty days in the archive, with its home and all that names it', () => {
  expect(refusal(state, 'owner', deleting('u'))).toEqual({ code: 'too-early', what: 'team' })
  expect(refusal(world(...parts, team('v')), 'owner', deleting('v'))).toEqual({
    code: 'too-early',
    what: 'team',
  })
  expect(refusal(state, 'p', deleting('t'))).toMatchObject({ code: 'lead-missing' })
  // Who may archive any team, and does not see its home, deletes nothing unseen.
  const admin = world(...parts, person('admin'), holding('admin', 'role-administrator'))
  expect(refusal(admin, 'admin', deleting('t'))).toEqual({ code: 'unknown', what: 'place' })
  const gone = after(state, 'lead', deleting('t'))
  expect([
    allRows(gone.teams).map(each => each.id),
    allRows(gone.memberships).length,
    allRows(gone.holdings).filter(each => each.person !== 'owner').length,
    allRows(gone.nodes)
      .map(each => each.id)
      .sort(),
    allRows(gone.grants).map(each => each.principal),
    rowOf(gone.columns, 'c' as ColumnId)?.viewers,
    rowOf(gone.channels, 'of-u' as ChannelId)?.only,
  ]).toEqual([['u'], 0, 0, ['board', 'elsewhere', 'root'], ['person:owner'], [], ['person:p']])
})

test('that is one fact, and is never undone; what would be left without a steward keeps the team', () => {
  const author = 'owner' as never
  const judged = judge(snapshotOf(state, now), { author, reason: '', edits: [deleting('t')] })
  if (!judged.ok) throw new Error('must be allowed')
  const { changes } = judged.value
  const tables = auditEventsOf(state, changes).map(event => event.change.table)
  expect(tables).toEqual(['columns', 'channels', 'teams'])
  const undoing = edit('undo', { revision: 1, changes, written: [] })
  expect(refusal(judged.value.state, 'owner', undoing)).toEqual({ code: 'never-undone' })
  const kept = world(...parts, node('kept', 'root'), grant('kept', 'leads:t', steward))
  expect(refusal(kept, 'owner', deleting('t'))).toMatchObject({ code: 'no-steward-left', nodes: ['kept'] })
})

test('one that a way in would put people into is in use', () => {
  const offer = { as: 'member', role: null, teams: ['t'], places: [], from: null, until: null }
  const offered = after(state, 'owner', edit('welcome.create', { welcome: 'w', name: 'W', note: '', offer }))
  expect(refusal(offered, 'owner', deleting('t'))).toEqual({ code: 'in-use', what: 'team' })
})
