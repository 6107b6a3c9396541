import fc from 'fast-check'
import { expect, test } from 'vitest'
import { noteChange, ranksOfTexts } from './text-order.ts'
import type { VectorOf } from './vectors.ts'

const vectorOf = (texts: readonly string[]): VectorOf<'text'> => ({ form: 'text', texts })
const keyOf = (text: string): string => text.toLowerCase()

/** Of each text how many that are filled stand before it. */
const defined = (texts: readonly string[]): number[] => {
  const filled = texts.filter(text => text !== '')
  return texts.map(text =>
    text === '' ? Number.NaN : filled.filter(other => keyOf(other) < keyOf(text)).length,
  )
}

test('an order that is mended for a few changes, asked for in between or not, is that of the texts', () => {
  const anyText = fc.constantFrom('', 'gull', 'Gull', 'tern', 'avocet', 'Knot', 'ruff')
  const anyChange = fc.record({
    slots: fc.array(fc.tuple(fc.nat({ max: 99 }), anyText), { minLength: 1, maxLength: 3 }),
    isAsked: fc.boolean(),
  })
  fc.assert(
    fc.property(
      fc.array(anyText, { minLength: 60, maxLength: 100 }),
      fc.array(anyChange, { maxLength: 5 }),
      (first, changes) => {
        let vector = vectorOf(first)
        expect([...ranksOfTexts(vector, keyOf)]).toEqual(defined(first))
        for (const { slots, isAsked } of changes) {
          const texts = vector.texts.slice()
          const changed = slots.filter(([slot]) => slot < texts.length)
          for (const [slot, text] of changed) texts[slot] = text
          const next = vectorOf(texts)
          noteChange(
            vector,
            next,
            changed.map(([slot]) => slot),
          )
          vector = next
          if (isAsked) expect([...ranksOfTexts(vector, keyOf)]).toEqual(defined(texts))
        }
        expect([...ranksOfTexts(vector, keyOf)]).toEqual(defined(vector.texts))
      },
    ),
    { numRuns: 400 },
  )
})
