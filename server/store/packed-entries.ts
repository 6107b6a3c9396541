import type { Base } from '#core/base/collection.ts'
import { none } from '#core/base/vector.ts'
import { type Lines, numbersOf, type PackedIds, packedNumberOf, packIds } from '#core/base/packed-ids.ts'
import type { EntryVectors } from '#core/index/build.ts'
import { records } from '#core/records/all.ts'
import type { Principal } from '#core/rules/principal.ts'
import type { IndexOf, Rows } from '#core/state/kinds.ts'
import { readerOf } from './fields.ts'
import { rowsByKey, recordsMade } from './packed.ts'

type EntryTable = 'grants' | 'limits'

/** All grants, or all limits, of a workspace as they lay in the file. */
export interface StoredEntries {
  readonly ids: Lines
  /** The ids of the places where they lie. */
  readonly places: Buffer
  readonly principals: readonly Principal[]
  /** What the index reads of each. */
  readonly entryAt: EntryVectors['entryAt']
  /** The records, a line of JSON each. */
  readonly lines: Buffer
}

export interface PackedEntries<T extends EntryTable> {
  readonly base: Base<Rows[T], IndexOf<T>>
  readonly columns: EntryVectors
}

export function packedEntries<T extends EntryTable>(
  table: T,
  nodes: PackedIds,
  { ids: idLines, places: placeLines, principals: principalOf, entryAt, lines }: StoredEntries,
): PackedEntries<T> {
  const ids = packIds(idLines)
  const { count } = ids
  const places = numbersOf(nodes, { lines: placeLines, count }, none)
  const principals = new Map<Principal, number>()
  const spokenOf = Int32Array.from(principalOf, principal => {
    const known = principals.get(principal)
    if (known !== undefined) return known
    principals.set(principal, principals.size)
    return principals.size - 1
  })
  const read = readerOf<Rows[T]>(records[table].fields)
  const { at } = recordsMade({ count, lines }, values => read(values))
  const atNode = rowsByKey(places, nodes.count)
  const ofPrincipal = rowsByKey(spokenOf, principals.size)
  const numbered = (number: number | undefined, by: (number: number) => Int32Array) =>
    number === undefined ? [] : by(number)
  return {
    base: {
      size: count,
      numberOf: id => packedNumberOf(ids, id),
      at,
      by: (index, key) =>
        index === 'node'
          ? numbered(packedNumberOf(nodes, key), atNode)
          : numbered(principals.get(key as Principal), ofPrincipal),
    },
    columns: { count, places, principals: [...principals.keys()], spokenOf, entryAt },
  }
}
