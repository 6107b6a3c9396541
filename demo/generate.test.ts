import { expect, test } from 'vitest'
import { allRows } from '#core/base/collection.ts'
import { generateDemo } from './generate.ts'

const now = Date.UTC(2026, 10, 23)

test('the demo is as large as promised, and the same each time', () => {
  const { sets, state } = generateDemo(now)
  const people = allRows(state.persons).filter(person => person.status === 'active')
  expect(people.filter(person => person.kind === 'member').length).toBeGreaterThanOrEqual(12)
  expect(people.filter(person => person.kind === 'guest').length).toBeGreaterThanOrEqual(4)
  expect(state.teams.rows.size).toBeGreaterThanOrEqual(4)
  expect(state.nodes.rows.size).toBeGreaterThanOrEqual(60)
  expect(generateDemo(now).sets.map(set => set.touching.changes)).toEqual(
    sets.map(set => set.touching.changes),
  )
})

test('its history begins nine months ago and ends before now', () => {
  const times = generateDemo(now).sets.map(set => set.after.at)
  expect(times).toEqual([...times].sort((a, b) => a - b))
  expect(now - (times[0] ?? now)).toBeGreaterThan(260 * 86_400_000)
  expect(times.at(-1)).toBeLessThan(now)
})
