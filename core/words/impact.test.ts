import { expect, test } from 'vitest'
import { levelActions } from '../levels/level.ts'
import { impactInWords } from './impact.ts'

const difference = (person: string, place: string, before: number, after: number) =>
  ({ person, place, places: 1, before, after }) as Parameters<typeof impactInWords>[0][number]

test.each([
  [[], 'Nobody’s access changes.'],
  [
    [difference('p', 'a', 0, 3), difference('p', 'b', 0, 3), difference('q', 'a', 1, 3)],
    '2 people gain Reader on 2 places. Nobody loses access.',
  ],
  [[difference('p', 'a', 3, 0)], 'Nobody gains access. 1 person loses all access on 1 place.'],
  [
    [
      { ...difference('p', 'a', 0, 3), places: 40 },
      { ...difference('q', 'a', 0, 3), places: 40 },
    ],
    '2 people gain Reader on 40 places. Nobody loses access.',
  ],
  [
    [difference('p', 'a', levelActions('Editor'), 1), difference('q', 'a', 0, 1)],
    '1 person gains Preview on 1 place. 1 person drops to Preview on 1 place.',
  ],
  [
    [difference('p', 'a', 3, 1), difference('q', 'a', 3, 0)],
    'Nobody gains access. 2 people lose some or all access on 1 place.',
  ],
  [
    [difference('web', 'a', 0, 1), difference('web', 'b', 0, 1)],
    'Anybody on the web gains Preview on 2 places. Nobody loses access.',
  ],
  [
    [difference('web', 'a', 1, 0), difference('p', 'b', 1, 0)],
    'Nobody gains access. 1 person and anybody on the web lose all access on 2 places.',
  ],
])('%# in one line', (differences, line) => {
  expect(impactInWords(differences, true)).toBe(line)
})

test('nothing is said of nobody to whoever may not know of all', () => {
  expect(impactInWords([], false)).toBe('No access changes where you can see it.')
  expect(impactInWords([difference('p', 'a', 3, 0)], false)).toBe('1 person loses all access on 1 place.')
})
