import type { ColumnForm, Held, Usage } from './kind.ts'
import { kindOf } from './kinds/all.ts'
import { compareKeys, ranksOfTexts } from './text-order.ts'
import type { Lists, Vector } from './vectors.ts'

/**
 * By what rows are ordered, as numbers: of each slot its key, equal ones alike; NaN for an empty cell, which stands last
 * whichever way rows are sorted.
 */
export type Keys = Float64Array | Int32Array

export function keysOf(vector: Vector, form: ColumnForm, nameOf: Usage['nameOf']): Keys {
  switch (vector.form) {
    case 'number': {
      const kind = kindOf(form)
      // Only a checkbox is ordered by something else than what it holds.
      return form.kind === 'checkbox'
        ? vector.numbers.map(held => kind.orderOf(held, form.settings, nameOf) as number)
        : vector.numbers
    }
    case 'span': {
      const kind = kindOf(form)
      return vector.from.map(
        (from, slot) => kind.orderOf([from, vector.through[slot] ?? from], form.settings, nameOf) as number,
      )
    }
    case 'text':
      return ranksOfTexts(vector, held => kindOf(form).orderOf(held, form.settings, nameOf) as string)
    case 'list':
      return ranksOfLists(vector, held => kindOf(form).orderOf(held, form.settings, nameOf))
  }
}

/** Few lists differ: these are ordered, and each cell is as its list is. */
function ranksOfLists({ codes, lists }: Lists, keyOf: (held: Held) => number | string): Float64Array {
  const keys = lists.map(list => (list.length === 0 ? undefined : keyOf(list)))
  const order = [...keys.keys()].filter(code => keys[code] !== undefined)
  const compare = (a: number, b: number) => compareKeys(keys[a] as string, keys[b] as string)
  order.sort(compare)
  const rankOf = new Float64Array(lists.length).fill(Number.NaN)
  let rank = -1
  for (const [index, code] of order.entries()) {
    if (index === 0 || compare(order[index - 1] as number, code) !== 0) rank = index
    rankOf[code] = rank
  }
  return Float64Array.from(codes, code => rankOf[code] as number)
}
