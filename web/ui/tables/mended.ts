/** What a cell of a table says instead of what is in the file; rows and columns are counted from 0. */
export interface MendedCell {
  readonly row: number
  readonly column: number
  readonly text: string
}

/** The rows with one cell changed; the rest is shared. */
export const withCell = (
  rows: readonly (readonly string[])[],
  { row, column, text }: MendedCell,
): readonly (readonly string[])[] =>
  rows.map((cells, index) =>
    index === row
      ? Array.from({ length: Math.max(cells.length, column + 1) }, (_, at) =>
          at === column ? text : (cells[at] ?? ''),
        )
      : cells,
  )

export const withMended = (mended: readonly MendedCell[], cell: MendedCell): readonly MendedCell[] => [
  ...mended.filter(({ row, column }) => row !== cell.row || column !== cell.column),
  cell,
]
