import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { allRows, rowsBy } from '../base/collection.ts'
import type { ColumnId, NodeId, PersonId } from '../base/ids.ts'
import { listActions, noActions } from '../levels/action.ts'
import { levelActions } from '../levels/level.ts'
import type { BoardColumn } from '../rules/column.ts'
import { snapshotOf, nextBound } from '../state/snapshot.ts'
import { applyChanges } from '../state/state.ts'
import { judged, judgedColumn } from '../tests/judge.ts'
import { levelOf as level } from '../tests/judging.ts'
import { broken, grant, limit, member, node, now, person, team, world } from '../tests/world.ts'
import { anyWorld, nodeIds, personIds, principals } from '../tests/worlds.ts'
import { checkColumn } from './columns.ts'
import { check } from './evaluate.ts'

const editor = levelActions('Editor')
const reader = levelActions('Reader')
const steward = levelActions('Steward')
const commenter = levelActions('Commenter')

describe('the examples of the contract', () => {
  const inTeam = [
    person('p'),
    team('t'),
    member('t', 'p'),
    node('a', 'root'),
    node('b', 'a'),
    grant('a', 'team:t', editor),
  ]

  test('a lower grant below a higher one takes nothing away', () => {
    expect(level(world(...inTeam, grant('b', 'person:p', reader)), 'p', 'b')).toBe('Editor')
  })

  test('to hold a person down one sets a limit', () => {
    expect(level(world(...inTeam, limit('b', 'person:p', reader)), 'p', 'b')).toBe('Reader')
  })

  test('a break stops what comes from above, and only that', () => {
    const state = world(
      ...inTeam,
      person('q'),
      node('c', 'a', broken),
      node('d', 'c'),
      grant('c', 'person:q', steward),
    )
    expect([level(state, 'p', 'c'), level(state, 'q', 'c'), level(state, 'q', 'd')]).toEqual([
      'No access',
      'Steward',
      'Steward',
    ])
  })

  test('a limit flows down through a break', () => {
    const guest = person('g', { kind: 'guest' })
    const state = world(
      guest,
      node('a', 'root'),
      node('b', 'a', broken),
      limit('a', 'guests', commenter),
      grant('b', 'person:g', editor),
    )
    expect(level(state, 'g', 'b')).toBe('Commenter')
  })

  test('a limit on a group spares stewards who are members, unless it says otherwise', () => {
    const parts = [
      person('s'),
      person('e'),
      node('a', 'root'),
      grant('a', 'person:s', steward),
      grant('a', 'person:e', editor),
    ]
    const spared = world(...parts, limit('a', 'anyone', reader))
    expect([level(spared, 's', 'a'), level(spared, 'e', 'a')]).toEqual(['Steward', 'Reader'])
    expect(level(world(...parts, limit('a', 'anyone', reader, { sparesStewards: false })), 's', 'a')).toBe(
      'Reader',
    )
  })

  test('a limit on a group never spares a guest, whatever a team gives', () => {
    const parts = [
      person('g', { kind: 'guest' }),
      team('t', { welcomesGuests: true }),
      member('t', 'g'),
      node('a', 'root'),
      grant('a', 'team:t', steward),
    ]
    for (const principal of ['anyone', 'guests', 'team:t', 'person:g'] as const)
      expect([principal, level(world(...parts, limit('a', principal, reader)), 'g', 'a')]).toEqual([
        principal,
        'Reader',
      ])
  })

  test('in an archived team’s home a lead keeps see, copy, share and seal', () => {
    const home = { home: { of: 'team', team: 't' as never } } as const
    const state = world(
      person('l'),
      team('t', { archived: true }),
      member('t', 'l', { lead: true }),
      node('h', 'root', home),
      grant('h', 'leads:t', steward),
    )
    const held = check(snapshotOf(state, now), 'l' as PersonId, 'h' as NodeId)
    expect(listActions(held)).toEqual(['see', 'copy', 'share', 'seal'])
  })
})

test('a guest is held by the ceiling, and its membership sleeps where guests are not welcome', () => {
  const parts = [
    person('g', { kind: 'guest' }),
    member('t', 'g'),
    node('a', 'root'),
    grant('a', 'team:t', steward),
  ]
  expect(level(world(...parts, team('t')), 'g', 'a')).toBe('No access')
  expect(level(world(...parts, team('t', { welcomesGuests: true })), 'g', 'a')).toBe('Editor')
})

test('an end is the first moment at which a grant counts no more', () => {
  const state = world(
    person('p'),
    node('a', 'root'),
    grant('a', 'person:p', reader, { from: now, until: now + 10 }),
  )
  const at = (time: number) => check(snapshotOf(state, time), 'p' as PersonId, 'a' as NodeId)
  expect([at(now - 1), at(now), at(now + 9), at(now + 10)]).toEqual([noActions, reader, reader, noActions])
  expect([nextBound(state, now), nextBound(state, now + 10)]).toEqual([now + 10, Infinity])
})

const instants = [now - 10, now, now + 5, now + 15, now + 30]

test('the engine answers as the judge does, for everybody everywhere, now and later', () => {
  fc.assert(
    fc.property(anyWorld, fc.constantFrom(...instants), (state, at) => {
      const snapshot = snapshotOf(state, at)
      for (const person of personIds as unknown as PersonId[])
        for (const node of nodeIds as unknown as NodeId[])
          expect([person, node, listActions(check(snapshot, person, node))]).toEqual([
            person,
            node,
            judged(snapshot, person, node),
          ])
    }),
    { numRuns: 400 },
  )
})

test('and of columns, in every row', () => {
  const some = fc.option(fc.subarray([...principals], { maxLength: 3 }), { nil: null })
  const counts = { none: 0, see: 0, edit: 0 }
  fc.assert(
    fc.property(anyWorld, some, some, (world, viewers, editors) => {
      for (const board of allRows(world.nodes)) {
        const column: BoardColumn = {
          id: 'c' as ColumnId,
          board: board.id,
          name: 'c',
          kind: 'text',
          settings: {},
          former: [],
          order: 0,
          viewers,
          editors,
        }
        const change = { table: 'columns', id: column.id, before: null, after: column } as const
        const snapshot = snapshotOf(applyChanges(world, [change]), now)
        for (const { id: row } of [board, ...rowsBy(world.nodes, 'parent', board.id)])
          for (const person of personIds as unknown as PersonId[]) {
            const answer = checkColumn(snapshot, person, { at: row, column: column.id })
            expect(answer).toBe(judgedColumn(snapshot, person, { row, column }))
            counts[answer] += 1
          }
      }
    }),
    { numRuns: 200 },
  )
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(50)
})
