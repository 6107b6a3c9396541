import { createHash } from 'node:crypto'
import { foldedWords } from '#core/base/fold-words.ts'

/** So many numbers has a workspace. */
export const range = 2 ** 31

/** Words that nobody writes: what a document is, beside what stands in it. */
export const anyFacet = 'd'
export const kindFacet = (kind: string): string => `k${kind}`
export const personFacet = (person: string): string => `p${Buffer.from(person).toString('hex')}`
export const nameFacet = (name: string): string =>
  `n${createHash('sha256').update(foldedWords(name).join(' ')).digest('hex').slice(0, 24)}`

/** The number that something has in its workspace. Large numbers come as floating ones, of which a text would have a point. */
export const numberFrom = (id: string): string => `${id} - CAST(? AS INTEGER)`

/** Whole numbers with commas between them. */
export function numbersIn(text: unknown): Int32Array {
  if (typeof text !== 'string') return new Int32Array()
  let count = 1
  for (let at = text.indexOf(','); at !== -1; at = text.indexOf(',', at + 1)) count += 1
  const numbers = new Int32Array(count)
  let next = 0
  let number = 0
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at)
    if (code === comma) {
      numbers[next++] = number
      number = 0
    } else number = number * 10 + code - zero
  }
  numbers[next] = number
  return numbers
}

const comma = ','.charCodeAt(0)
const zero = '0'.charCodeAt(0)
