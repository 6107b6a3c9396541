import type { ColumnRead } from '#core/boards/data.ts'
import type { PlainUsage } from './plain-usage.ts'
import type { BoardAnswers, BoardQuestion, BoardQuestionKind } from './question.ts'

/** A row as it stands in its records; its cells as the text that is stored: they are read where they are held. */
export type RawRow = readonly [
  id: string,
  name: string,
  order: number,
  section: string | null,
  serial: number | null,
  madeAt: number,
  maker: string,
  cells: string | null,
]

/** To the thread. What is told needs no answer, and comes before what is asked after it. */
export type ToBoards =
  /** A board begins anew, without rows. */
  | {
      readonly tell: 'begin'
      readonly board: string
      readonly columns: readonly ColumnRead[]
      readonly usage: PlainUsage
    }
  | {
      readonly tell: 'rows'
      readonly board: string
      readonly rows: readonly RawRow[]
      readonly gone: readonly string[]
    }
  | { readonly tell: 'drop'; readonly board: string }
  | { readonly ask: number; readonly board: string; readonly question: BoardQuestion }

/** Back from it. */
export type FromBoards =
  | { readonly id: number; readonly answer: BoardAnswers[BoardQuestionKind] }
  | { readonly id: number; readonly fault: string }
