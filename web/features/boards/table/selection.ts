/** Where one is in the table, and from where a block is selected: by the position of a row, and the place of a column. */
export interface Spot {
  readonly row: number
  readonly column: number
}

export interface Selection {
  readonly at: Spot
  /** The other corner of the block. */
  readonly from: Spot
}

export interface Block {
  readonly top: number
  readonly bottom: number
  readonly left: number
  readonly right: number
}

export const blockOf = ({ at, from }: Selection): Block => ({
  top: Math.min(at.row, from.row),
  bottom: Math.max(at.row, from.row),
  left: Math.min(at.column, from.column),
  right: Math.max(at.column, from.column),
})

export const isIn = ({ top, bottom, left, right }: Block, { row, column }: Spot): boolean =>
  row >= top && row <= bottom && column >= left && column <= right

export const isOne = (block: Block): boolean => block.top === block.bottom && block.left === block.right

interface Bounds {
  readonly rows: number
  readonly columns: number
  /** How many rows a page has. */
  readonly page: number
}

/** Where a key leads, or `undefined` for one that leads nowhere. */
export function movedBy(
  { key, ctrlKey, metaKey }: { readonly key: string; readonly ctrlKey: boolean; readonly metaKey: boolean },
  { row, column }: Spot,
  { rows, columns, page }: Bounds,
): Spot | undefined {
  const far = ctrlKey || metaKey
  const to = (nextRow: number, nextColumn: number): Spot => ({
    row: Math.max(0, Math.min(rows - 1, nextRow)),
    column: Math.max(0, Math.min(columns - 1, nextColumn)),
  })
  switch (key) {
    case 'ArrowDown':
      return to(far ? rows - 1 : row + 1, column)
    case 'ArrowUp':
      return to(far ? 0 : row - 1, column)
    case 'ArrowRight':
      return to(row, far ? columns - 1 : column + 1)
    case 'ArrowLeft':
      return to(row, far ? 0 : column - 1)
    case 'PageDown':
      return to(row + page, column)
    case 'PageUp':
      return to(row - page, column)
    case 'Home':
      return to(far ? 0 : row, 0)
    case 'End':
      return to(far ? rows - 1 : row, columns - 1)
    default:
      return undefined
  }
}
