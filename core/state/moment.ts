import type { Instant, Span } from '../base/instant.ts'
import { type Table, valuesOf } from '../base/table.ts'
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

/** The tables whose rows can begin or end by themselves. */
const spanned = ['grants', 'limits', 'memberships', 'holdings', 'persons'] as const

/**
 * The next start or end after `at`: until then every answer given at `at` holds. Infinity if none comes. Costs
 * what the tables cost that changed since it was last asked.
 */
export function nextBound(state: State, at: Instant): Instant {
  const nexts = spanned.map(table => nextAfter(at, boundsIn(state[table].rows as Table<string, Span>)))
  return Math.min(...nexts)
}

const boundsIn = (rows: Table<string, Span>): readonly Instant[] =>
  sortedOnce(sortedBounds, rows, ({ from, until }) => [from, until])

/** Sorted instants by the table that they were read from. */
export type Sorted = WeakMap<object, readonly Instant[]>
const sortedBounds: Sorted = new WeakMap()

/** The instants that rows hold, in order: worked out once for a table, which never changes. */
export function sortedOnce<Row>(
  known: Sorted,
  rows: Table<string, Row>,
  instantsOf: (row: Row) => readonly (Instant | null)[],
): readonly Instant[] {
  const kept = known.get(rows)
  if (kept !== undefined) return kept
  const found: Instant[] = []
  for (const row of valuesOf(rows)) for (const each of instantsOf(row)) if (each !== null) found.push(each)
  found.sort((a, b) => a - b)
  known.set(rows, found)
  return found
}

/** The first of some sorted instants that is later than `at`. */
export function nextAfter(at: Instant, sorted: readonly Instant[]): Instant {
  let low = 0
  for (let high = sorted.length; low < high;) {
    const middle = (low + high) >> 1
    if ((sorted[middle] ?? at) > at) high = middle
    else low = middle + 1
  }
  return sorted[low] ?? Number.POSITIVE_INFINITY
}
