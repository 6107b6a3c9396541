import { createContext, type RefObject, useContext } from 'react'
import type { BoardInfo, ColumnView } from '#contract/views/boards.ts'
import type { NodeView } from '#contract/views/content.ts'
import type { Usage } from '#core/boards/kind.ts'
import type { Linked } from './OutOfReach.tsx'
import type { OpenView } from './use-view.ts'
import type { Writing } from './use-writing.ts'

/** A column as it is shown: the name of the row is the first one. */
export interface Shown {
  readonly id: string
  readonly name: string
  readonly column: ColumnView | undefined
  readonly width: number
}

/** The open board, for all of its parts. */
export interface OpenBoard {
  readonly slug: string
  readonly node: NodeView
  readonly info: BoardInfo
  readonly view: OpenView
  readonly shown: readonly Shown[]
  readonly usage: Usage
  readonly writing: Writing
  readonly mayArrange: boolean
  readonly mayShare: boolean
  readonly mayAdd: boolean
  /** Places that rows name which were shown until now. */
  readonly placeNames: () => readonly { readonly id: string; readonly name: string }[]
  /** Asks whether the chosen rows go to the bin. */
  readonly binChosen: () => void
  /** The rows in which the chosen cells stand, for what is done with whole rows. */
  readonly chosenRef: RefObject<() => Promise<readonly ChosenRow[]>>
  /** Told when links to places were put into a row. */
  readonly onLinked: (linked: Linked) => void
  /** Opens something at the right, besides a row. */
  readonly openPanel: (panel: BoardPanel | undefined) => void
}

export interface ChosenRow {
  readonly id: string
  readonly name: string
}

export type BoardPanel =
  | { readonly of: 'bin rows'; readonly rows: readonly ChosenRow[] }
  | { readonly of: 'new column' }
  | { readonly of: 'column' | 'delete column'; readonly column: string }
  | { readonly of: 'sections' }
  | { readonly of: 'import' }

/** The name stays in sight beside all others, and leaves them room on a phone. */
export const cssWidth = ({ column, width }: Pick<Shown, 'column' | 'width'>): string =>
  column === undefined ? `min(${width}px, 38vw)` : `${width}px`

export const BoardContext = createContext<OpenBoard | undefined>(undefined)

export function useOpenBoard(): OpenBoard {
  const board = useContext(BoardContext)
  if (board === undefined) throw new Error('no board is open')
  return board
}
