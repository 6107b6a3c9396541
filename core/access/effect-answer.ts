import { type Asked, type Effect, effectOf } from './effect.ts'
import type { Rows } from './effect-rows.ts'
import { type Summed, summed } from './summed.ts'

/** What is told of a wide change: row by row if the rows are few after all, else added up. */
export interface WideAnswer {
  readonly rows: Rows | null
  /** Of the places alone at which the change begins. */
  readonly startRows: Rows
  readonly sum: Summed
  readonly hidden: number
}

export function answerTo(asked: Asked): WideAnswer {
  const effect: Effect = effectOf(asked)
  return {
    rows: effect.rows,
    startRows: effect.startRows,
    sum: summed(effect),
    hidden: effect.hidden,
  }
}
