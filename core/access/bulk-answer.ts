import { type DiffQuery, type AccessDiff, accessDiffOf } from './access-diff.ts'
import type { Rows } from './diff-rows.ts'
import { type Summed, summed } from './totals.ts'

/** What is told of a wide change: row by row if the rows are few after all, else added up. */
export interface BulkAnswer {
  readonly rows: Rows | null
  /** Of the places alone at which the change begins. */
  readonly startRows: Rows
  readonly sum: Summed
  readonly hidden: number
}

export function answerTo(query: DiffQuery): BulkAnswer {
  const diff: AccessDiff = accessDiffOf(query)
  return {
    rows: diff.rows,
    startRows: diff.startRows,
    sum: summed(diff),
    hidden: diff.hidden,
  }
}
