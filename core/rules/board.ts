import type { BoardViewId, NodeId, SectionId } from '../base/ids.ts'
import type { ViewState } from '../boards/view.ts'

/** A part of a board in which rows stand together. Where it goes, its rows stay, in none. */
export interface Section {
  readonly id: SectionId
  readonly board: NodeId
  readonly name: string
  /** Place among the board's sections; equal ones are ordered by name. */
  readonly order: number
}

/** A way to look at a board that all who see it share. */
export interface BoardView {
  readonly id: BoardViewId
  readonly board: NodeId
  readonly name: string
  /** Place among the board's views; equal ones are ordered by name. */
  readonly order: number
  readonly state: ViewState
}
