import { noIds, type PackedIds, packedIdOf, packedNumberOf } from './packed-ids.ts'
import { deleteIn, emptyTable, getIn, setIn, type Table } from './table.ts'

/**
 * A small whole number for each id, for as long as it is there, so that what belongs to it can lie in vectors.
 * Numbers that are given back are taken again. Immutable; an id that is not there has none.
 *
 * Ids that were there from the start are packed.
 */
export interface Numbering<Id extends string> {
  /** How many numbers were ever in use at once: the next new one. */
  readonly length: number
  readonly packed: PackedIds
  /** Ids that came later; `none` for a packed one that is gone. */
  readonly numbers: Table<Id, number>
  /** By number, in pages: those that came later. */
  readonly ids: readonly (readonly (Id | undefined)[])[]
  readonly free: Free
}

/** Numbers that were given back, the last one first. */
export type Free = { readonly number: number; readonly rest: Free } | null

const gone = -1
const pageLength = 512

export const emptyNumbering = <Id extends string>(packed: PackedIds = noIds): Numbering<Id> => ({
  length: packed.count,
  packed,
  numbers: emptyTable(),
  ids: [],
  free: null,
})

export function numberOf<Id extends string>(numbering: Numbering<Id>, id: Id): number | undefined {
  const later = numbering.numbers.size === 0 ? undefined : getIn(numbering.numbers, id)
  if (later !== undefined) return later === gone ? undefined : later
  return packedNumberOf(numbering.packed, id)
}

/** `undefined` for a number that is not in use. */
export function idOf<Id extends string>(
  { ids, packed, numbers }: Numbering<Id>,
  number: number,
): Id | undefined {
  const later = ids[Math.floor(number / pageLength)]?.[number % pageLength]
  if (later !== undefined || number >= packed.count) return later
  const id = packedIdOf(packed, number) as Id
  return numbers.size > 0 && getIn(numbers, id) !== undefined ? undefined : id
}

/** Whether the id of one number in use comes after that of another, sign by sign. */
export const comesAfter = <Id extends string>(
  numbering: Numbering<Id>,
  number: number,
  other: number,
): boolean => (idOf(numbering, number) ?? '') > (idOf(numbering, other) ?? '')

/** With a number for an id that has none yet. */
export function numbered<Id extends string>(numbering: Numbering<Id>, id: Id): [Numbering<Id>, number] {
  const next = numberedAll(numbering, [id])
  return [next, getIn(next.numbers, id) as number]
}

/** With a number for each of some ids that have none yet. */
export function numberedAll<Id extends string>(
  numbering: Numbering<Id>,
  added: readonly Id[],
): Numbering<Id> {
  let { length, numbers, free } = numbering
  const pages = pagesOf(numbering.ids)
  for (const id of added) {
    const number = free?.number ?? length
    numbers = setIn(numbers, id, number)
    pages.set(number, id)
    if (free === null) length += 1
    else free = free.rest
  }
  return { ...numbering, length, numbers, free, ids: pages.ids }
}

/** Without the number of an id that goes. */
export function unnumbered<Id extends string>(numbering: Numbering<Id>, id: Id): Numbering<Id> {
  const number = numberOf(numbering, id)
  if (number === undefined) return numbering
  return {
    ...numbering,
    numbers:
      packedNumberOf(numbering.packed, id) === undefined
        ? deleteIn(numbering.numbers, id)
        : setIn(numbering.numbers, id, gone),
    ids: pagesOf(numbering.ids).set(number, undefined),
    free: { number, rest: numbering.free },
  }
}

/** Pages of ids that can be written: each is copied before its first write. */
function pagesOf<Id>(before: readonly (readonly (Id | undefined)[])[]) {
  const ids: (Id | undefined)[][] = [...before] as (Id | undefined)[][]
  const isOwn = new Set<number>()
  const set = (number: number, id: Id | undefined) => {
    const index = Math.floor(number / pageLength)
    while (ids.length < index) ids.push([])
    const page = isOwn.has(index) ? (ids[index] ?? []) : [...(ids[index] ?? [])]
    page[number % pageLength] = id
    ids[index] = page
    isOwn.add(index)
    return ids
  }
  return { ids, set }
}
