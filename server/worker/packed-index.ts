import { type Vector, vectorOf, pageBytes } from '#core/base/vector.ts'
import { emptyNumbering, type Numbering } from '#core/base/numbering.ts'
import { type AccessIndex, vectorNames, emptyIndex } from '#core/index/layout.ts'

/**
 * An index on its way to a worker: only what the worker does not have yet. Vectors that were made whole lie in shared
 * memory and are read where they are; pages that were written since are copied, 16 KiB each at most. Ids stay behind:
 * a worker is asked in numbers.
 */
export interface PackedIndex {
  readonly vectors: Readonly<Record<VectorName, PackedVector>>
  readonly lengths: Readonly<Record<'nodes' | 'persons' | 'teams' | 'segments', number>>
  readonly rest: Pick<AccessIndex, 'levels' | 'forAll' | 'guestCeiling' | 'allowsPublishing'>
}

interface PackedVector {
  readonly length: number
  readonly pageCount: number
  /** What the vector was made in, with the places of the pages that still lie there; `null` where it is known, or was not made whole. */
  readonly whole: { readonly memory: SharedArrayBuffer; readonly pages: number } | null
  readonly changed: readonly (readonly [number, Int32Array])[]
}

type VectorName = (typeof vectorNames)[number]

/** What of an index differs from one that the worker has. Costs a look at each page, and a copy of those that differ. */
export function packIndex(index: AccessIndex, known: AccessIndex | undefined): PackedIndex {
  const { levels, forAll, guestCeiling, allowsPublishing, nodes, persons, teams, freeSegments } = index
  return {
    vectors: mapped(name => packVector(index[name], known?.[name])),
    lengths: {
      nodes: nodes.length,
      persons: persons.length,
      teams: teams.length,
      segments: freeSegments.length,
    },
    rest: { levels, forAll, guestCeiling, allowsPublishing },
  }
}

export function openIndex(packed: PackedIndex, known: AccessIndex | undefined): AccessIndex {
  const { vectors, lengths, rest } = packed
  return {
    ...emptyIndex,
    ...mapped(name => openVector(vectors[name], known?.[name])),
    nodes: numbering(lengths.nodes),
    persons: numbering(lengths.persons),
    teams: numbering(lengths.teams),
    freeSegments: { length: lengths.segments, free: null },
    ...rest,
  }
}

const mapped = <Value>(of: (name: VectorName) => Value) =>
  Object.fromEntries(vectorNames.map(name => [name, of(name)])) as Record<VectorName, Value>

/** Of numbers alone. */
const numbering = <Id extends string>(length: number): Numbering<Id> => ({ ...emptyNumbering<Id>(), length })

function packVector({ length, pages }: Vector, known: Vector | undefined): PackedVector {
  const whole = known === undefined ? wholeOf(pages) : null
  const changed: [number, Int32Array][] = []
  for (const [place, page] of pages.entries()) {
    const isKnown = whole === null ? known?.pages[place] === page : liesIn(page, whole, place)
    if (!isKnown) changed.push([place, page])
  }
  return {
    length,
    pageCount: pages.length,
    whole: whole === null ? null : { memory: whole, pages: pageIn(whole) },
    changed,
  }
}

/** The shared memory in which a vector was made. */
function wholeOf(pages: readonly Int32Array[]): SharedArrayBuffer | null {
  for (const { buffer } of pages) if (buffer instanceof SharedArrayBuffer) return buffer
  return null
}

const pageIn = (memory: SharedArrayBuffer): number => memory.byteLength / pageBytes

const liesIn = (page: Int32Array, memory: SharedArrayBuffer, place: number): boolean =>
  page.buffer === memory && page.byteOffset === place * pageBytes

function openVector({ length, pageCount, whole, changed }: PackedVector, known: Vector | undefined): Vector {
  if (known !== undefined && changed.length === 0 && known.length === length) return known
  const pages =
    whole === null
      ? [...(known?.pages ?? [])]
      : Array.from(
          { length: whole.pages },
          (_, place) => new Int32Array(whole.memory, place * pageBytes, pageBytes / 4),
        )
  for (const [place, page] of changed) pages[place] = page
  pages.length = pageCount
  return vectorOf({ length, pages, isOwn: [] })
}
