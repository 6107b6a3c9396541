import { expect, test } from 'vitest'
import { placeOf } from '#core/access/place.ts'
import { hasSteward } from '#core/access/who.ts'
import { allRows, rowOf, rowsBy } from '#core/base/collection.ts'
import { guestFaultsOf } from '#core/changes/guards/guests.ts'
import { partsOf } from '#core/rules/principal.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { emptyState } from '#core/records/all.ts'
import { applyChanges, pathOf } from '#core/state/state.ts'
import { kindsWithin } from '#core/tree/node.ts'
import { generateLarge, sizes } from './large.ts'

const now = Date.UTC(2026, 10, 23)

test.each(['S', 'M'] as const)('%s has what its size says, and keeps what the core keeps', name => {
  const size = sizes[name]
  const state = applyChanges(emptyState, [...generateLarge(size, now)])
  const count = {
    people: state.persons,
    teams: state.teams,
    nodes: state.nodes,
    grants: state.grants,
    limits: state.limits,
  }
  for (const [what, table] of Object.entries(count))
    expect([what, table.size]).toEqual([what, size[what as keyof typeof count]])
  const breaks = allRows(state.nodes).filter(node => node.broken !== null).length
  expect(Math.abs(breaks / size.breaks - 1)).toBeLessThan(0.35)
  for (const node of allRows(state.nodes)) {
    const parent = node.parent === null ? undefined : rowOf(state.nodes, node.parent)
    if (node.kind === 'root') continue
    expect(parent !== undefined && kindsWithin(parent.kind).includes(node.kind)).toBe(true)
    expect(parent?.kind === 'root').toBe(node.home !== null)
  }
  const snapshot = snapshotOf(state, now)
  const lonely = allRows(state.nodes).filter(({ id, kind }) => {
    const place = placeOf(snapshot, id)
    return kind !== 'root' && (place === undefined || !hasSteward(snapshot, place))
  })
  expect(lonely).toEqual([])
  for (const { id } of allRows(state.persons)) expect(guestFaultsOf(state, id)).toEqual([])
  for (const { principal, node } of allRows(state.grants)) {
    const parts = partsOf(principal)
    const isThere =
      parts.kind === 'person'
        ? rowOf(state.persons, parts.person)
        : 'team' in parts
          ? rowOf(state.teams, parts.team)
          : state
    expect([isThere !== undefined, rowOf(state.nodes, node) !== undefined]).toEqual([true, true])
  }
  const deepest = Math.max(
    ...rowsBy(state.grants, 'principal', 'team:t0').map(each => pathOf(state, each.node).length),
  )
  expect(deepest).toBeGreaterThan(2)
})

test('L is counted without being built', () => {
  const counts: Record<string, number> = {}
  for (const { table } of generateLarge(sizes.L, now)) counts[table] = (counts[table] ?? 0) + 1
  expect(counts).toMatchObject({
    persons: 20_000,
    teams: 1000,
    nodes: 1_000_000,
    grants: 200_000,
    limits: 2000,
  })
})
