import type { Instant, Span } from '../base/instant.ts'
import { valuesOf } from '../base/table.ts'
import type { Moment, State } from './state.ts'

/** Published states live long and are asked at many times: past this many the kept moments are let go. */
const keptAtMost = 64

const moments = new WeakMap<State, Map<Instant, Moment>>()

/** One moment for a state and a time, so that what is read once at it serves every later question. */
export function momentOf(state: State, at: Instant): Moment {
  const kept = moments.get(state) ?? new Map<Instant, Moment>()
  moments.set(state, kept)
  if (kept.size >= keptAtMost) kept.clear()
  const moment = kept.get(at) ?? { state, at }
  kept.set(at, moment)
  return moment
}

/** Everything that can begin or end by itself. */
export function* spansOf(state: State): Generator<Span> {
  yield* valuesOf(state.grants.rows)
  yield* valuesOf(state.limits.rows)
  yield* valuesOf(state.memberships.rows)
  yield* valuesOf(state.holdings.rows)
  yield* valuesOf(state.persons.rows)
}

/** The next start or end after `at`: until then every answer given at `at` holds. Infinity if none comes. */
export function nextBound(state: State, at: Instant): Instant {
  let next = Number.POSITIVE_INFINITY
  for (const { from, until } of spansOf(state))
    for (const bound of [from, until]) if (bound !== null && bound > at && bound < next) next = bound
  return next
}
