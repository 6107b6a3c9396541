import type { DiffQuery } from '../access/access-diff.ts'
import { answerTo, type BulkAnswer } from '../access/bulk-answer.ts'

/**
 * Long work that takes a breath now and then: whoever drives it may let others in between, or give it up. It comes to
 * the same however it is driven.
 */
export type Steps<T> = Generator<Breath, T, BulkAnswer | undefined>

/** How much is done, 0 to 1; or a question in numbers alone, which may be worked out elsewhere. */
export type Breath = number | DiffQuery

/** Without a break. */
export function toEnd<T>(steps: Steps<T>): T {
  let answer: BulkAnswer | undefined
  for (;;) {
    const step = steps.next(answer)
    if (step.done === true) return step.value
    answer = typeof step.value === 'number' ? undefined : answerTo(step.value)
  }
}

/** Steps that are a part of others: from so far of all to so far. */
export function* within<T>(steps: Steps<T>, from: number, to: number): Steps<T> {
  let answer: BulkAnswer | undefined
  for (;;) {
    const step = steps.next(answer)
    if (step.done === true) return step.value
    answer = yield typeof step.value === 'number' ? from + (to - from) * step.value : step.value
  }
}

export function* answered(query: DiffQuery): Steps<BulkAnswer> {
  const answer = yield query
  if (answer === undefined) throw new Error('a question was not answered')
  return answer
}
