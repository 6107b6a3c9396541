import type { WhereOptions } from 'sequelize'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { RecordChange, State } from '#core/state/state.ts'
import type { News } from './news.ts'
import type { OwnTable } from './tables.ts'

/**
 * What a write is, as data: what has to be so, the next state, the rows (its entry of the history and the mails that it
 * causes are some of them), and what others are to hear. The writer alone touches the database.
 */
export interface Commit<T, E = never> {
  readonly value: T
  /** Looked at in the transaction: where one does not hold, nothing of the write is done. */
  readonly conditions?: readonly Condition<E>[]
  /** The next state of its workspace. */
  readonly state?: State
  readonly rows?: readonly RowChange[]
  readonly news?: readonly News[]
}

export type Condition<E> = CountCondition<E> | SumCondition<E> | UseCondition<E>

/** So many rows are there. */
export interface CountCondition<E> {
  readonly table: OwnTable
  readonly where: WhereOptions
  readonly atLeast?: number
  readonly atMost?: number
  readonly orElse: E
}

/** All of some rows come to so much at most, with what is put. */
export interface SumCondition<E> {
  readonly sums: readonly {
    readonly table: OwnTable
    readonly column: string
    readonly where: WhereOptions
  }[]
  readonly more: number
  readonly atMost: number
  readonly orElse: E
}

/** No more than so many uses are made in an hour, with these. They count once all conditions hold. */
export interface UseCondition<E> {
  readonly uses: Uses
  readonly atMost: number
  readonly orElse: E
}

export interface Uses {
  readonly workspace: WorkspaceId
  /** A person, or the join link by which strangers come. */
  readonly who: string
  readonly what: string
  /** Of which hour since 1970. */
  readonly hour: number
  readonly count: number
}

/** What is put and dropped by many writes goes in few statements, after what is updated and deleted by each. */
export type RowChange =
  /** Records of the core as a change set left them. */
  | {
      readonly kind: 'records'
      readonly workspace: WorkspaceId
      readonly changes: readonly RecordChange[]
    }
  | PutRows
  | {
      readonly kind: 'drop'
      readonly table: OwnTable
      readonly workspace: string
      readonly ids: readonly string[]
    }
  | {
      readonly kind: 'update'
      readonly table: OwnTable
      readonly where: WhereOptions
      readonly fields: object
    }
  | { readonly kind: 'delete'; readonly table: OwnTable; readonly where: WhereOptions }
  | CopiedContent

export interface PutRows {
  readonly kind: 'put'
  readonly table: OwnTable
  readonly rows: readonly object[]
  /** The fields that are overwritten where a row is there already; none where it must be new. */
  readonly replaced?: readonly string[]
  /** Fields that hold lists, to be written as JSON: they may be long. */
  readonly json?: readonly string[]
}

/** What is written in some places as the beginning of what is written in their copies. */
export interface CopiedContent {
  readonly kind: 'copies'
  readonly workspace: WorkspaceId
  readonly at: Instant
  readonly copies: readonly CopiedPlace[]
}

export interface CopiedPlace {
  readonly from: string
  readonly to: string
  readonly by: string
  /** Of a row, the columns whose cells are copied with it: which of its board, and which of the copy's board they are. */
  readonly columns?: readonly (readonly [from: string, to: string])[]
}

/** A write of rows alone. */
export const rowsOnly = (...rows: readonly RowChange[]): Commit<undefined> => ({ value: undefined, rows })
