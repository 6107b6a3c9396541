import type { BoardData } from './data.ts'
import { lastWritten } from './last-written.ts'
import { type RowsAsked, type RowsFound, rowsFor } from './rows.ts'
import { everyCondition, nameColumn } from './view.ts'

/** What was found for one way of looking at a board, and all of the board that it hangs on. */
interface Kept {
  readonly key: string
  readonly basis: readonly unknown[]
  readonly found: RowsFound
}

/** By a board with all that comes of it. */
const kept = new WeakMap<BoardData['slotOf'], Kept[]>()
const looksKept = 12

/**
 * As `rowsFor`, which is asked only where something changed that decides which rows fit, or how they stand: whoever scrolls
 * asks for more of the same, and most cells that are written are in no condition. All that is asked, besides the board,
 * is in the key.
 */
export function foundRows(board: BoardData, asked: RowsAsked, key: string): RowsFound {
  const list = kept.get(board.slotOf) ?? []
  kept.set(board.slotOf, list)
  const basis = basisOf(board, asked)
  const at = list.findIndex(each => each.key === key)
  const known = list[at]
  if (known !== undefined && known.basis.every((each, nth) => each === basis[nth])) return known.found
  if (known !== undefined) list.splice(at, 1)
  const found = rowsFor(board, asked)
  list.unshift({ key, basis, found })
  list.length = Math.min(list.length, looksKept)
  return found
}

function basisOf(board: BoardData, { view, columns }: RowsAsked): unknown[] {
  const used = new Set([
    ...everyCondition(view.where).map(each => each.column),
    ...view.sort.map(each => each.column),
    ...(view.group === null ? [] : [view.group]),
  ])
  const { isThere, orders, sections, names, serials, madeAt, makers } = board
  const basis: unknown[] = [isThere, orders, sections, serials, madeAt, makers]
  if (used.has(nameColumn)) basis.push(names)
  for (const { id, kind } of columns)
    if (used.has(id))
      basis.push(kind === 'updated' ? lastWritten(board, columns).held : board.columns.get(id)?.held)
  return basis
}
