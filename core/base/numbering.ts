import { deleteIn, emptyTable, getIn, hashOf, setIn, type Table } from './table.ts'

/**
 * A small whole number for each id, for as long as it is there, so that what belongs to it can lie in columns.
 * Numbers that are given back are taken again. Immutable; an id that is not there has none.
 *
 * Ids that were there from the start are packed: a million of them as strings in a map would take more memory
 * than all that is known of them.
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

export interface PackedIds {
  readonly count: number
  /** All ids, one after the other. */
  readonly text: string
  /** Where each begins; one more than there are ids. */
  readonly starts: Int32Array
  /** Open addressing by hash: number + 1, 0 where there is none. */
  readonly slots: Int32Array
}

const gone = -1
const pageLength = 512

const noIds: PackedIds = { count: 0, text: '', starts: new Int32Array(1), slots: new Int32Array(1) }

export const emptyNumbering = <Id extends string>(packed: PackedIds = noIds): Numbering<Id> => ({
  length: packed.count,
  packed,
  numbers: emptyTable(),
  ids: [],
  free: null,
})

/** Numbers from 0 on, in the order given. Each id must be there once. */
export function packIds(ids: readonly string[]): PackedIds {
  const starts = new Int32Array(ids.length + 1)
  for (const [index, id] of ids.entries()) starts[index + 1] = (starts[index] as number) + id.length
  let size = 1
  while (size < 2 * ids.length) size *= 2
  const slots = new Int32Array(size)
  for (const [index, id] of ids.entries()) {
    let slot = hashOf(id) & (size - 1)
    while (slots[slot] !== 0) slot = (slot + 1) & (size - 1)
    slots[slot] = index + 1
  }
  return { count: ids.length, text: ids.join(''), starts, slots }
}

export function numberOf<Id extends string>(numbering: Numbering<Id>, id: Id): number | undefined {
  const later = numbering.numbers.size === 0 ? undefined : getIn(numbering.numbers, id)
  if (later !== undefined) return later === gone ? undefined : later
  return packedNumberOf(numbering.packed, id)
}

function packedNumberOf({ count, text, starts, slots }: PackedIds, id: string): number | undefined {
  if (count === 0) return undefined
  const mask = slots.length - 1
  for (let slot = hashOf(id) & mask; ; slot = (slot + 1) & mask) {
    const number = (slots[slot] as number) - 1
    if (number < 0) return undefined
    const start = starts[number] as number
    if ((starts[number + 1] as number) - start === id.length && text.startsWith(id, start)) return number
  }
}

/** `undefined` for a number that is not in use. */
export function idOf<Id extends string>(
  { ids, packed, numbers }: Numbering<Id>,
  number: number,
): Id | undefined {
  const later = ids[Math.floor(number / pageLength)]?.[number % pageLength]
  if (later !== undefined || number >= packed.count) return later
  const id = packed.text.slice(packed.starts[number], packed.starts[number + 1]) as Id
  return numbers.size > 0 && getIn(numbers, id) !== undefined ? undefined : id
}

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
