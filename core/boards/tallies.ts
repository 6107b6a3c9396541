import type { Totals } from './kind.ts'
import type { Lists, VectorOf } from './vectors.ts'

/** What kinds tell in the foot, of the cells of some slots. Each is one loop over plain numbers: there are many cells. */

/** How many are filled: all that there is to tell of most kinds. */
export function countNumbers({ numbers }: VectorOf<'number'>, slots: Int32Array): Totals {
  let filled = 0
  for (let nth = 0; nth < slots.length; nth += 1)
    if (!Number.isNaN(numbers[slots[nth] as number])) filled += 1
  return { filled }
}

export function countTexts({ texts }: VectorOf<'text'>, slots: Int32Array): Totals {
  let filled = 0
  for (let nth = 0; nth < slots.length; nth += 1) if (texts[slots[nth] as number] !== '') filled += 1
  return { filled }
}

export function extremes({ numbers }: VectorOf<'number'>, slots: Int32Array): Totals {
  let filled = 0
  let least = Number.POSITIVE_INFINITY
  let greatest = Number.NEGATIVE_INFINITY
  for (let nth = 0; nth < slots.length; nth += 1) {
    const held = numbers[slots[nth] as number] as number
    // Nothing is not less than anything, nor more.
    if (Number.isNaN(held)) continue
    filled += 1
    if (held < least) least = held
    if (held > greatest) greatest = held
  }
  return filled === 0 ? { filled } : { filled, least, greatest }
}

/** Sums in whole units, of which there are so many to one: they are exact for as long as they are whole numbers themselves. */
export function sums({ numbers }: VectorOf<'number'>, slots: Int32Array, unit: number): Totals {
  let [filled, sum] = [0, 0]
  let least = Number.POSITIVE_INFINITY
  let greatest = Number.NEGATIVE_INFINITY
  for (let nth = 0; nth < slots.length; nth += 1) {
    const held = numbers[slots[nth] as number] as number
    if (Number.isNaN(held)) continue
    filled += 1
    sum += Math.round(held * unit)
    if (held < least) least = held
    if (held > greatest) greatest = held
  }
  return filled === 0 ? { filled } : { filled, sum: sum / unit, mean: sum / unit / filled, least, greatest }
}

/** How many cells have each option, in the order of the options; those that are none any more come last, the most frequent first. */
export function countEach(lists: Lists, slots: Int32Array, order: readonly string[]): Totals {
  const counts = new Map<string, number>()
  const filled = addLists(lists, slots, (id, cells) => counts.set(id, (counts.get(id) ?? 0) + cells))
  const ids = order.filter(id => counts.has(id))
  const others = [...counts.keys()]
    .filter(id => !ids.includes(id))
    .sort((a, b) => (counts.get(b) ?? 0) - (counts.get(a) ?? 0) || (a < b ? -1 : 1))
  return { filled, options: [...ids, ...others].map(id => [id, counts.get(id) ?? 0]) }
}

/** How many people, or places, the cells name. */
export function countDifferent(lists: Lists, slots: Int32Array): Totals {
  const different = new Set<string>()
  const filled = addLists(lists, slots, id => different.add(id))
  return { filled, different: different.size }
}

/** Lists differ seldom: each is gone through once, for all cells that hold it. Returns how many cells hold something. */
function addLists(
  { codes, lists }: Lists,
  slots: Int32Array,
  add: (id: string, cells: number) => void,
): number {
  const cellsOf = new Int32Array(lists.length)
  for (let nth = 0; nth < slots.length; nth += 1) {
    const code = codes[slots[nth] as number] as number
    cellsOf[code] = (cellsOf[code] as number) + 1
  }
  let filled = 0
  for (const [code, list] of lists.entries()) {
    const cells = cellsOf[code] as number
    if (cells === 0 || list.length === 0) continue
    filled += cells
    for (const id of list) add(id, cells)
  }
  return filled
}
