import type { ColumnId, NodeId } from '../base/ids.ts'
import type { Principal } from './principal.ts'

/** A column of a board. It is restricted where it names who may see or edit it; stewards of the board always may. */
export interface BoardColumn {
  readonly id: ColumnId
  readonly board: NodeId
  readonly name: string
  /** Place among the board's columns; equal ones are ordered by name. */
  readonly order: number
  /** Who sees it; `null` for everyone who sees the row. */
  readonly viewers: readonly Principal[] | null
  /** Who edits it; `null` for everyone who may change the row. */
  readonly editors: readonly Principal[] | null
}
