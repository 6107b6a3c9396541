import { expect, test } from 'vitest'
import { check } from '#core/access/evaluate.ts'
import { who } from '#core/access/who.ts'
import { allRows, rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { noActions } from '#core/levels/action.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { pathOf } from '#core/state/state.ts'
import { placeId } from './ids.ts'
import { hiddenTeam } from './scenario/entries.ts'
import { generateDemo } from './generate.ts'

const now = Date.UTC(2026, 10, 23)

const { sets, state } = generateDemo(now)
const count = <T>(rows: readonly T[], fits: (row: T) => boolean) => rows.filter(fits).length

test('the demo is as large as promised, and the same each time', () => {
  const people = allRows(state.persons)
  expect(count(people, each => each.kind === 'member' && each.status !== 'invited')).toBe(42)
  expect(count(people, each => each.kind === 'guest')).toBe(14)
  expect(state.teams.size).toBe(10)
  expect(state.nodes.size).toBeGreaterThan(570)
  const depth = Math.max(...allRows(state.nodes).map(node => pathOf(state, node.id).length - 1))
  expect(depth).toBeGreaterThanOrEqual(6)
  expect(generateDemo(now).sets.map(set => set.transition.changes)).toEqual(
    sets.map(set => set.transition.changes),
  )
})

test('it is untidy where oversight shall find something', () => {
  const snapshot = snapshotOf(state, now)
  const grants = allRows(state.grants)
  const byName = (key: string) => grants.filter(each => each.principal === `person:person-${key}`)
  const places = new Set<string>(hiddenTeam.places.map(placeId))
  for (const key of hiddenTeam.people)
    expect([key, count(byName(key), each => places.has(each.node))]).toEqual([key, 4])
  expect(byName('anton').length).toBeGreaterThan(0)
  expect(rowOf(state.persons, 'person-anton' as PersonId)?.status).toBe('suspended')
  expect(rowOf(state.persons, 'person-dorian' as PersonId)?.until).toBe(null)
  expect(
    allRows(state.nodes).some(node => check(snapshot, 'person-dorian' as PersonId, node.id) !== noActions),
  ).toBe(true)
  const salaries = who(snapshot, placeId('Funder Report/Salaries') as NodeId)
  expect(salaries.map(each => each.person.id)).toEqual(['person-ilse'])
  expect(
    count(allRows(state.roles), role => !allRows(state.holdings).some(each => each.role === role.id)),
  ).toBe(1)
  expect(count(allRows(state.invitations), each => each.until < now)).toBe(2)
  const leads = allRows(state.memberships).filter(each => each.team === 'team-data' && each.lead)
  expect(leads.map(each => rowOf(state.persons, each.person)?.status)).toEqual(['suspended'])
  expect(
    check(
      snapshot,
      'person-henrik' as PersonId,
      placeId('Sites/North Spit/Nest Locations/Ringing notes') as NodeId,
    ),
  ).toBe(noActions)
})

test('its history begins nine months ago and ends before now', () => {
  const times = sets.map(set => set.after.at)
  expect(times).toEqual([...times].sort((a, b) => a - b))
  expect(now - (times[0] ?? now)).toBeGreaterThan(260 * 86_400_000)
  expect(times.at(-1)).toBeLessThan(now)
})
