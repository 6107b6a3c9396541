import type { Vector } from './vectors.ts'

/**
 * Texts in order. An order is kept with its vector, and that of a vector that came of another by a few changes is that of
 * the other, mended: to order 100,000 texts takes a tenth of a second, and people change one at a time.
 */

type Texts = Vector & { readonly form: 'text' }

interface CameFrom {
  readonly before: Texts
  readonly slots: readonly number[]
}

/** Only of what is ordered already: so that no vector keeps more than one other. */
const cameFrom = new WeakMap<Vector, CameFrom>()

/** Past such a part of all, an order is made anew. */
const mendedAtMost = 1 / 20

/** Remembers in which slots a vector differs from the one that it came of. */
export function noteChange(before: Vector, next: Vector, changed: readonly number[]): void {
  if (before.form !== 'text' || next.form !== 'text') return
  const from = textOrders.has(before) ? { before, slots: [] } : cameFrom.get(before)
  if (from === undefined) return
  const slots = [...new Set([...from.slots, ...changed])]
  if (slots.length <= next.texts.length * mendedAtMost) cameFrom.set(next, { before: from.before, slots })
}

export const compareKeys = <T extends number | string>(a: T, b: T): number => (a < b ? -1 : a > b ? 1 : 0)

interface TextOrder {
  /** The slots whose text is not empty, ordered. */
  readonly order: Int32Array
  readonly ranks: Float64Array
}

const textOrders = new WeakMap<Vector, TextOrder>()

export const ranksOfTexts = (vector: Texts, keyOf: (held: string) => string): Float64Array =>
  textOrderOf(vector, keyOf).ranks

function textOrderOf(vector: Texts, keyOf: (held: string) => string): TextOrder {
  const known = textOrders.get(vector)
  if (known !== undefined) return known
  const found = ranked(vector, orderFrom(vector, keyOf) ?? orderAnew(vector, keyOf), keyOf)
  textOrders.set(vector, found)
  cameFrom.delete(vector)
  return found
}

function orderAnew({ texts }: Texts, keyOf: (held: string) => string): Int32Array {
  const keys = texts.map(text => (text === '' ? '' : keyOf(text)))
  const slots = Int32Array.from(texts.keys()).filter(slot => texts[slot] !== '')
  return slots.sort((a, b) => compareKeys(keys[a] as string, keys[b] as string) || a - b)
}

/** From the order of the vector that it came of, where there is one: each changed slot taken out and put where it belongs. */
function orderFrom(vector: Texts, keyOf: (held: string) => string): Int32Array | undefined {
  const from = cameFrom.get(vector)
  const before = from === undefined ? undefined : textOrders.get(from.before)
  if (from === undefined || before === undefined) return undefined
  const { texts } = vector
  const moved = new Set(from.slots)
  const kept = before.order.filter(slot => !moved.has(slot))
  const coming = [...moved].filter(slot => texts[slot] !== '')
  const keys = new Map(coming.map(slot => [slot, keyOf(texts[slot] as string)]))
  coming.sort((a, b) => compareKeys(keys.get(a) as string, keys.get(b) as string) || a - b)
  const order = new Int32Array(kept.length + coming.length)
  let taken = 0
  for (const [index, slot] of coming.entries()) {
    const place = placeFor(slot, keys.get(slot) as string, { kept, from: taken, texts, keyOf })
    order.set(kept.subarray(taken, place), taken + index)
    order[place + index] = slot
    taken = place
  }
  order.set(kept.subarray(taken), taken + coming.length)
  return order
}

interface Within {
  readonly kept: Int32Array
  readonly from: number
  readonly texts: readonly string[]
  readonly keyOf: (held: string) => string
}

function placeFor(slot: number, key: string, { kept, from, texts, keyOf }: Within): number {
  let [low, high] = [from, kept.length]
  while (low < high) {
    const middle = (low + high) >> 1
    const other = kept[middle] as number
    const isBefore = (compareKeys(keyOf(texts[other] as string), key) || other - slot) < 0
    if (isBefore) low = middle + 1
    else high = middle
  }
  return low
}

function ranked({ texts }: Texts, order: Int32Array, keyOf: (held: string) => string): TextOrder {
  const ranks = new Float64Array(texts.length).fill(Number.NaN)
  let rank = -1
  for (let at = 0; at < order.length; at += 1) {
    const [slot, previous] = [order[at] as number, order[at - 1]]
    const isEqual =
      previous !== undefined &&
      (texts[previous] === texts[slot] || keyOf(texts[previous] as string) === keyOf(texts[slot] as string))
    if (!isEqual) rank = at
    ranks[slot] = rank
  }
  return { order, ranks }
}
