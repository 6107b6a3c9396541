import fc from 'fast-check'
import { expect, test } from 'vitest'
import { compareWords } from './compare-words.ts'

test('names stand as people read them: numbers by what they are worth, accents beside their letters', () => {
  const names = ['Week 10', 'week 9', 'Week 9', 'Öre', 'Oat', 'Week 9b', '2 boats', '10 boats', 'Ox', 'Week']
  expect(names.toSorted(compareWords)).toEqual([
    '2 boats',
    '10 boats',
    'Oat',
    'Öre',
    'Ox',
    'Week',
    'week 9',
    'Week 9',
    'Week 9b',
    'Week 10',
  ])
})

test('is one order, whichever of its two ways compares a pair', () => {
  const name = fc
    .array(fc.constantFrom('a', 'B', '1', '02', '10', ' ', '-', 'é', '.'), { maxLength: 5 })
    .map(parts => parts.join(''))
  fc.assert(
    fc.property(name, name, name, (a, b, c) => {
      expect(Math.sign(compareWords(a, b)) + Math.sign(compareWords(b, a))).toBe(0)
      if (compareWords(a, b) <= 0 && compareWords(b, c) <= 0)
        expect(compareWords(a, c)).toBeLessThanOrEqual(0)
    }),
    { numRuns: 5000 },
  )
})
