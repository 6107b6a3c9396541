import { describe, expect, test } from 'vitest'
import { channelRights } from '../../access/channels.ts'
import { checkColumn, visibleColumns } from '../../access/columns.ts'
import { placeOf } from '../../access/place.ts'
import { subjectOf } from '../../access/subject.ts'
import { rowOf } from '../../base/collection.ts'
import type { ChannelId, ColumnId, NodeId, PersonId, TeamId } from '../../base/ids.ts'
import { judge, proposedOf } from '../../changes/judge.ts'
import { impact } from '../../impact/impact.ts'
import { levelActions } from '../../levels/level.ts'
import type { BoardColumn } from '../../rules/column.ts'
import type { Channel } from '../../rules/channel.ts'
import { snapshotOf } from '../../state/snapshot.ts'
import type { State } from '../../state/state.ts'
import { after, edit, editor, reader, refusal, steward } from '../judging.ts'
import { broken, grant, holding, member, node, now, type Part, person, team, world } from '../world.ts'

/** Inside a place: restricted columns of boards, and channels of teams. */

describe('columns', () => {
  const column = (id: string, more: Partial<BoardColumn> = {}): Part => ({
    table: 'columns',
    row: {
      id: id as ColumnId,
      board: 'b' as NodeId,
      name: id,
      kind: 'text',
      settings: {},
      former: [],
      order: 0,
      viewers: null,
      editors: null,
      ...more,
    },
  })
  const parts = [
    ...['s', 'e', 'r', 'own', 'named', 'out'].map(id => person(id)),
    person('g', { kind: 'guest' }),
    team('office'),
    member('office', 'named'),
    node('b', 'root', { kind: 'board' }),
    node('row', 'b', { kind: 'row', maker: 'own' as PersonId }),
    node('apart', 'b', { kind: 'row', ...broken }),
    grant('apart', 'person:s', steward),
    grant('b', 'person:s', steward),
    grant('b', 'person:e', editor),
    grant('b', 'person:r', reader),
    grant('b', 'person:g', editor),
    grant('b', 'person:own', levelActions('Adder')),
    grant('b', 'person:named', editor),
    column('dates'),
    column('fees', { viewers: ['team:office'], editors: ['team:office'] }),
    column('helped', { editors: ['person:r', 'person:own', 'team:office'] }),
  ]
  const state = world(...parts)
  const at = (of: State, who: string, id: string, where = 'row') =>
    checkColumn(snapshotOf(of, now), who as PersonId, { at: where as NodeId, column: id as ColumnId })
  const all = (who: string) => ['dates', 'fees', 'helped'].map(id => at(state, who, id))

  test('seeing one needs the row and being named; editing, to change the row and being named', () => {
    expect(all('s')).toEqual(['edit', 'edit', 'edit'])
    expect(all('e')).toEqual(['edit', 'none', 'see'])
    expect(all('r')).toEqual(['see', 'none', 'see'])
    expect(all('named')).toEqual(['edit', 'edit', 'edit'])
    expect(all('g')).toEqual(['edit', 'none', 'see'])
    expect(all('out')).toEqual(['none', 'none', 'none'])
  })

  test('on one’s own row adding is enough; a row of its own follows its own entries', () => {
    expect(all('own')).toEqual(['edit', 'none', 'edit'])
    expect(at(state, 'own', 'dates', 'b')).toBe('see')
    expect(['named', 's'].map(who => at(state, who, 'fees', 'apart'))).toEqual(['none', 'edit'])
    expect(at(state, 's', 'fees', 'root')).toBe('none')
  })

  test('who may not see one is not told of it', () => {
    const snapshot = snapshotOf(state, now)
    const seen = (who: string) => {
      const subject = subjectOf(snapshot, who as PersonId)
      const place = placeOf(snapshot, 'b' as NodeId)
      return subject && place && visibleColumns(snapshot, subject, place).map(each => each.id)
    }
    expect([seen('e'), seen('s'), seen('out')]).toEqual([
      ['dates', 'helped'],
      ['dates', 'fees', 'helped'],
      [],
    ])
    const copied = after(
      world(
        ...parts,
        node('goal', 'root'),
        grant('goal', 'person:e', editor),
        grant('goal', 'person:s', steward),
      ),
      'e',
      edit('node.duplicate', { node: 'b', parent: 'goal', name: 'Copy', copies: 'new' }),
    )
    expect(rowOf(copied.columns, 'new-0-c0' as ColumnId)?.name).toBe('dates')
    expect(rowOf(copied.columns, 'new-0-c2' as ColumnId)).toBe(undefined)
  })

  test('restricting needs share at the board, all else about columns arrange; nobody changes one that they may not see', () => {
    const parted = world(...parts, person('c'), grant('b', 'person:c', levelActions('Curator')))
    const making = (viewers: string[] | null) =>
      edit('column.create', {
        as: 'text',
        settings: {},
        column: 'new',
        board: 'b',
        name: 'N',
        order: 1,
        viewers,
        editors: null,
      })
    const outcome = (by: string) =>
      [
        making(null),
        making(['person:r']),
        edit('column.change', { column: 'dates', name: 'N' }),
        edit('column.change', { column: 'dates', editors: [] }),
        edit('column.change', { column: 'fees', name: 'N' }),
        edit('column.delete', { column: 'dates' }),
        edit('column.delete', { column: 'fees' }),
      ].map(each => refusal(parted, by, each) === 'allowed')
    expect(outcome('s')).toEqual([true, true, true, true, true, true, true])
    expect(outcome('c')).toEqual([true, false, true, false, false, true, false])
    expect(outcome('e')).toEqual([false, false, false, false, false, false, false])
    expect(refusal(parted, 's', making(['guests']))).toEqual({ code: 'limits-only' })
    expect(refusal(parted, 'out', edit('column.delete', { column: 'fees' }))).toMatchObject({
      what: 'column',
    })
  })

  test('count in the effect of a change, and in the guard of one’s own raise', () => {
    const before = snapshotOf(state, now)
    const edits = [edit('column.change', { column: 'fees', viewers: ['person:e'] })]
    const set = { author: 's' as PersonId, reason: '', edits }
    const judged = judge(before, set)
    if (!judged.ok) throw new Error('refused')
    const [first] = impact(proposedOf(before, set, judged.value))
    expect(first?.differences).toEqual([])
    expect(first?.columns.map(each => [each.person, each.at, each.before, each.after])).toEqual([
      ['e', 'b', 'none', 'see'],
      ['named', 'b', 'edit', 'none'],
    ])
    // Whoever fills teams cannot put themselves where a column opens.
    const filler = [person('f'), holding('f', 'role-people-lead'), grant('b', 'person:f', reader)]
    const joining = edit('member.add', {
      membership: 'x',
      team: 'office',
      person: 'f',
      lead: false,
      from: null,
      until: null,
    })
    expect(refusal(world(...parts, ...filler), 'f', joining)).toMatchObject({
      code: 'own-raise',
      nodes: ['b'],
    })
  })
})

describe('channels', () => {
  const channel = (id: string, more: Partial<Channel> = {}): Part => ({
    table: 'channels',
    row: {
      id: id as ChannelId,
      team: 't' as TeamId,
      name: id,
      note: '',
      only: null,
      archived: false,
      ...more,
    },
  })
  const parts = (more: Parameters<typeof team>[1] = {}) => [
    person('lead'),
    person('m'),
    person('out'),
    person('g', { kind: 'guest' }),
    person('mod'),
    {
      table: 'roles',
      row: {
        id: 'role-mod',
        name: 'R',
        note: '',
        rank: 5,
        privileges: ['moderate'],
        addressable: false,
        builtIn: false,
        seatExempt: false,
      },
    } as unknown as Part,
    holding('mod', 'role-mod'),
    team('t', { welcomesGuests: true, ...more }),
    member('t', 'lead', { lead: true }),
    ...['m', 'g', 'mod'].map(id => member('t', id)),
    node('h', 'root', { home: { of: 'team', team: 't' as TeamId } }),
    grant('h', 'leads:t', steward),
    channel('open'),
    channel('some', { only: ['person:m', 'person:out'] }),
    channel('old', { archived: true }),
  ]
  const rights = (of: State, who: string, id: string) => {
    const snapshot = snapshotOf(of, now)
    const subject = subjectOf(snapshot, who as PersonId)
    const row = rowOf(of.channels, id as ChannelId)
    const all = subject && row && channelRights(snapshot, subject, row)
    return Object.entries(all ?? {}).flatMap(([name, may]) => (may ? [name] : []))
  }
  const state = world(...parts())

  test('are open to the team, or to those named among those in it', () => {
    const readers = (id: string) =>
      ['lead', 'm', 'g', 'mod', 'out', 'owner'].filter(who => rights(state, who, id).includes('read'))
    expect(readers('open')).toEqual(['lead', 'm', 'g', 'mod'])
    expect(readers('some')).toEqual(['m'])
  })

  test('what one may do there comes from the team and the privileges, not from content', () => {
    const posting = (more: Parameters<typeof team>[1]) =>
      ['lead', 'm', 'g'].filter(who => rights(world(...parts(more)), who, 'open').includes('post'))
    expect([posting({}), posting({ posting: 'members' }), posting({ posting: 'leads' })]).toEqual([
      ['lead', 'm', 'g'],
      ['lead', 'm'],
      ['lead'],
    ])
    expect(posting({ archived: true })).toEqual([])
    expect([rights(state, 'lead', 'old'), rights(state, 'm', 'old')]).toEqual([
      ['read', 'moderate'],
      ['read'],
    ])
    expect(rights(state, 'mod', 'open')).toEqual(['read', 'post', 'moderate'])
    expect(rights(state, 'm', 'open')).toEqual(['read', 'post'])
    expect(rights(world(...parts({ addressing: 'everyone' })), 'm', 'open')).toContain('addressEveryone')
  })

  test('are made and settled by leads or with the privilege; nobody but a lead lets themselves in', () => {
    const letting = (who: string) => edit('channel.change', { channel: 'some', only: [`person:${who}`] })
    expect(refusal(state, 'm', edit('channel.change', { channel: 'open', name: 'N' }))).toMatchObject({
      code: 'lead-missing',
    })
    expect(refusal(state, 'mod', edit('channel.change', { channel: 'open', name: 'N' }))).toBe('allowed')
    expect(refusal(state, 'mod', letting('mod'))).toMatchObject({ what: 'channel' })
    expect(refusal(state, 'lead', letting('lead'))).toBe('allowed')
    expect(
      refusal(
        state,
        'mod',
        edit('channel.create', { channel: 'n', team: 't', name: 'N', note: '', only: null }),
      ),
    ).toMatchObject({
      code: 'lead-missing',
    })
    expect(refusal(state, 'out', edit('channel.change', { channel: 'nothing', name: 'N' }))).toMatchObject({
      what: 'channel',
    })
  })
})
