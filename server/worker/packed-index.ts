import { type Column, columnOf, pageBytes } from '#core/base/column.ts'
import { emptyNumbering, type Numbering } from '#core/base/numbering.ts'
import { type AccessIndex, columnNames, emptyIndex } from '#core/index/layout.ts'

/**
 * An index on its way to a worker: only what the worker does not have yet. Columns that were made whole lie in shared
 * memory and are read where they are; pages that were written since are copied, 16 KiB each at most. Ids stay behind:
 * a worker is asked in numbers.
 */
export interface PackedIndex {
  readonly columns: Readonly<Record<ColumnName, PackedColumn>>
  readonly lengths: Readonly<Record<'nodes' | 'persons' | 'teams' | 'segments', number>>
  readonly rest: Pick<AccessIndex, 'levels' | 'forAll' | 'guestCeiling' | 'allowsPublishing'>
}

interface PackedColumn {
  readonly length: number
  readonly pageCount: number
  /** What the column was made in, with the places of the pages that still lie there; `null` where it is known, or was not made whole. */
  readonly whole: { readonly memory: SharedArrayBuffer; readonly pages: number } | null
  readonly changed: readonly (readonly [number, Int32Array])[]
}

type ColumnName = (typeof columnNames)[number]

/** What of an index differs from one that the worker has. Costs a look at each page, and a copy of those that differ. */
export function packIndex(index: AccessIndex, known: AccessIndex | undefined): PackedIndex {
  const { levels, forAll, guestCeiling, allowsPublishing, nodes, persons, teams, freeSegments } = index
  return {
    columns: mapped(name => packColumn(index[name], known?.[name])),
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
  const { columns, lengths, rest } = packed
  return {
    ...emptyIndex,
    ...mapped(name => openColumn(columns[name], known?.[name])),
    nodes: numbering(lengths.nodes),
    persons: numbering(lengths.persons),
    teams: numbering(lengths.teams),
    freeSegments: { length: lengths.segments, free: null },
    ...rest,
  }
}

const mapped = <Value>(of: (name: ColumnName) => Value) =>
  Object.fromEntries(columnNames.map(name => [name, of(name)])) as Record<ColumnName, Value>

/** Of numbers alone. */
const numbering = <Id extends string>(length: number): Numbering<Id> => ({ ...emptyNumbering<Id>(), length })

function packColumn({ length, pages }: Column, known: Column | undefined): PackedColumn {
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

/** The shared memory in which a column was made. */
function wholeOf(pages: readonly Int32Array[]): SharedArrayBuffer | null {
  for (const { buffer } of pages) if (buffer instanceof SharedArrayBuffer) return buffer
  return null
}

const pageIn = (memory: SharedArrayBuffer): number => memory.byteLength / pageBytes

const liesIn = (page: Int32Array, memory: SharedArrayBuffer, place: number): boolean =>
  page.buffer === memory && page.byteOffset === place * pageBytes

function openColumn({ length, pageCount, whole, changed }: PackedColumn, known: Column | undefined): Column {
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
  return columnOf({ length, pages, isOwn: [] })
}
