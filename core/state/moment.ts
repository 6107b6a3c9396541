import type { Instant } from '../base/instant.ts'
import { nextOf } from './dates.ts'
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

/** The next start or end after `at`: until then every answer given at `at` holds. Infinity if none comes. */
export const nextBound = ({ dates }: State, at: Instant): Instant =>
  nextOf(dates, ['starts', 'ends', 'leavings'], at)
