import type { Sides } from '#core/access/classes.ts'
import {
  createEvaluation,
  createEvaluationBeside,
  type EvaluationContext,
} from '#core/access/evaluation-context.ts'
import { answersFor, visibleIn, type VisibleRows, rootsIn } from '#core/access/what.ts'
import type { Instant } from '#core/base/instant.ts'
import type { DiffQuery } from '#core/access/access-diff.ts'
import { answerTo, type BulkAnswer } from '#core/access/bulk-answer.ts'
import type { AccessIndex } from '#core/index/layout.ts'
import { type ListedPlaces, type Listing, listPlaces } from './places.ts'

/** What a worker is asked, in numbers, about an index or about two. */
export type Question =
  | ({ readonly kind: 'diff'; readonly time: Instant } & Omit<DiffQuery, 'sides' | 'onStep'>)
  | ({ readonly kind: 'seen' } & OfPerson)
  | ({ readonly kind: 'roots' } & OfPerson)
  | ({ readonly kind: 'answers' } & OfPerson)
  | ({ readonly kind: 'places'; readonly time: Instant } & Listing)

interface OfPerson {
  readonly time: Instant
  readonly person: number
}

export interface Answers {
  readonly diff: BulkAnswer
  readonly seen: VisibleRows
  readonly roots: Int32Array
  readonly answers: Int16Array
  readonly places: ListedPlaces
}

export type Kind = Question['kind']

type OnProgress = (done: number) => void

/** Answers a question; `told` may throw to end it. */
export function answer<K extends Kind>(
  question: Extract<Question, { kind: K }>,
  indexes: Sides<AccessIndex>,
  onProgress?: OnProgress,
): Answers[K]
export function answer(question: Question, [was, is]: Sides<AccessIndex>, onProgress: OnProgress = () => {}) {
  const evaluation = evaluationAt(was, question.time)
  switch (question.kind) {
    case 'diff':
      return answerTo({
        ...question,
        sides: [evaluation, createEvaluationBeside(evaluation, is)],
        onStep: onProgress,
      })
    case 'seen':
      return visibleIn(answersFor(evaluation, question.person))
    case 'roots':
      return rootsIn(answersFor(evaluation, question.person))
    case 'answers':
      return answersFor(evaluation, question.person).bySegment
    case 'places':
      return listPlaces(
        [evaluation, was === is ? evaluation : createEvaluation(is, question.now)],
        question,
        onProgress,
      )
  }
}

let last: EvaluationContext | undefined

/** The same for the same index and time, so that what was worked out of it is not again. */
function evaluationAt(index: AccessIndex, time: Instant): EvaluationContext {
  if (last?.index !== index || last.time !== time) last = createEvaluation(index, time)
  return last
}
