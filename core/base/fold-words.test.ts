import fc from 'fast-check'
import { expect, test } from 'vitest'
import { beginsIn, fold, foldedWords, placesOf } from './fold-words.ts'

/** Letters of both cases, with accents, as two, of other scripts and beyond sixteen bits, and what stands between words. */
const letters = 'aAbZzéÉßÆøŁ9٣жЖ中𝒜𐐀 \n-.,’"'
const text = fc.string({ unit: fc.constantFrom(...Array.from(letters)), maxLength: 24 })

test('what a word begins with is found where it stands, and nowhere else', () => {
  fc.assert(
    fc.property(text, text, (written, sought) => {
      for (const word of foldedWords(sought)) {
        const begins = foldedWords(written).some(each => each.startsWith(word))
        expect([word, beginsIn(fold(written), word)]).toEqual([word, begins])
        expect([word, placesOf(written, [word]).length > 0]).toEqual([word, begins])
      }
    }),
    { numRuns: 2000 },
  )
})

test('folded once is folded for good, whatever stands beside it', () => {
  fc.assert(
    fc.property(text, written => {
      expect(fold(fold(written))).toBe(fold(written))
      // Plain letters are folded a shorter way.
      expect(fold(`${written}é`)).toBe(`${fold(written)}e`)
    }),
  )
})
