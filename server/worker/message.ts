import type { PackedIndex } from './packed-index.ts'
import type { Answers, Kind, Question } from './question.ts'

/** To the thread: a question, with what of its index is not there yet. */
export interface Asking {
  readonly id: number
  /** Where each thread of a workspace's indexes begins. */
  readonly workspace: string
  readonly question: Question
  readonly was: PackedIndex
  /** What follows from it, where the question is about two. */
  readonly is: PackedIndex | null
  /** Shared: see `inControl`. */
  readonly control: Int32Array
}

/** What both sides write and read while a question is worked on. */
export const inControl = { length: 2, isStopped: 0, permille: 1 } as const

/** Back from the thread. */
export type Reply =
  | { readonly id: number; readonly answer: Answers[Kind] }
  | { readonly id: number; readonly isStopped: true }
  | { readonly id: number; readonly fault: string }
