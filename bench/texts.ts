import { createRandom } from '#demo/random.ts'

/** Texts of words that nobody speaks, spread as those of a language are. */

const syllables =
  'ba bo da de fa fi ga go ha he ka ko la le li lo ma me mo na ne no pa po ra re ri ro sa se so ta te ti'.split(
    ' ',
  )

/** The word of a rank: two syllables and more. */
export function wordOf(rank: number): string {
  let text = ''
  for (let left = rank + syllables.length; left > 0; left = Math.floor(left / syllables.length))
    text += syllables[left % syllables.length] ?? ''
  return text
}

const ranks = 20_000
const random = createRandom(7)
/** As words are spread: one of the rank r comes as often as 1 / r. */
const anyWord = (): string => wordOf(Math.floor(ranks ** (random.whole(1_000_000) / 1_000_000)))

export const textOf = (words: number): string => Array.from({ length: words }, anyWord).join(' ')
