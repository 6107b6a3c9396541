import type { ColumnId, NodeId } from '../base/ids.ts'
import type { KindName } from '../boards/kind.ts'
import type { Principal } from './principal.ts'

/** A column of a board. It is restricted where it names who may see or edit it; stewards of the board always may. */
export interface BoardColumn {
  readonly id: ColumnId
  readonly board: NodeId
  readonly name: string
  readonly kind: KindName
  /** In the form of its kind: its unit, its states, its tags. */
  readonly settings: object
  /**
   * What it was before it became another kind, the first first. A cell says as which of these it was written, and is read
   * as what it would be now: so that no cell is written anew, and each is as it was when the column is so again.
   */
  readonly former: readonly FormerKind[]
  /** Place among the board's columns; equal ones are ordered by name. */
  readonly order: number
  /** Who sees it; `null` for everyone who sees the row. */
  readonly viewers: readonly Principal[] | null
  /** Who edits it; `null` for everyone who may change the row. */
  readonly editors: readonly Principal[] | null
}

export interface FormerKind {
  readonly kind: KindName
  readonly settings: object
}
