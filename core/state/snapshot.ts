import type { Instant } from '../base/instant.ts'
import { nextOf } from './dates.ts'
import type { Snapshot, State } from './state.ts'

/** Published states live long and are asked at many times: past this many the kept snapshots are let go. */
const keptAtMost = 64

const snapshots = new WeakMap<State, Map<Instant, Snapshot>>()

/** One snapshot for a state and a time, so that what is read once at it serves every later question. */
export function snapshotOf(state: State, at: Instant): Snapshot {
  const kept = snapshots.get(state) ?? new Map<Instant, Snapshot>()
  snapshots.set(state, kept)
  if (kept.size >= keptAtMost) kept.clear()
  const snapshot = kept.get(at) ?? { state, at }
  kept.set(at, snapshot)
  return snapshot
}

/** The next start or end after `at`: until then every answer given at `at` holds. Infinity if none comes. */
export const nextBound = ({ dates }: State, at: Instant): Instant =>
  nextOf(dates, ['starts', 'ends', 'leavings'], at)
