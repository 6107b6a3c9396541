import type { CellConflict, RowView } from '#contract/views/boards.ts'
import type { CellValue } from '#core/boards/kind.ts'

/** A cell as it is to be written. */
export interface CellWrite {
  readonly row: string
  readonly column: string
  readonly value: CellValue
  /** What stood there, to be taken back to. */
  readonly before: CellValue
  /** The version of the row that was seen. */
  readonly seen: number
}

/** A step that can be taken back: what was written, and the version of each row after it; or rows that were made. */
export type Step = WrittenStep | { readonly made: readonly string[] }

export interface WrittenStep {
  readonly cells: readonly CellWrite[]
  readonly versions: Readonly<Record<string, number>>
}

/** What could not be written, for its author to decide. */
export type Unwritten =
  | {
      readonly kind: 'conflict'
      readonly cells: readonly CellWrite[]
      readonly conflicts: readonly CellConflict[]
    }
  | {
      readonly kind: 'refused'
      readonly cells: readonly CellWrite[]
      readonly count: number
      readonly why: readonly string[]
    }

/** Something of some cells, by row and column: a row of which nothing of it changes keeps its own. */
export type OfCells<V> = ReadonlyMap<string, ReadonlyMap<string, V>>

/** With what each of some cells is now; what is `undefined` is left out. */
export function withCells<V>(
  before: OfCells<V>,
  cells: readonly (readonly [row: string, column: string, now: V | undefined])[],
): OfCells<V> {
  const next = new Map(before)
  const own = new Map<string, Map<string, V>>()
  for (const [row, column, now] of cells) {
    const ofRow = own.get(row) ?? new Map(next.get(row))
    own.set(row, ofRow)
    if (now === undefined) ofRow.delete(column)
    else ofRow.set(column, now)
  }
  for (const [row, ofRow] of own)
    if (ofRow.size === 0) next.delete(row)
    else next.set(row, ofRow)
  return next
}

export const cellKey = (row: string, column: string): string => `${row} ${column}`

export const valueIn = (row: RowView, column: string): CellValue =>
  column === 'name' ? row.name : (row.cells[column] ?? null)

/** What takes a step back: each cell as it was, unless somebody else has written in it since. */
export const takingBack = ({ cells, versions }: WrittenStep): CellWrite[] =>
  cells.map(({ row, column, value, before }) => ({
    row,
    column,
    value: before,
    before: value,
    seen: versions[row] ?? 0,
  }))
