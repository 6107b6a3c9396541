import { none, offsetIn, pageAt, read } from '../base/vector.ts'
import {
  type AccessIndex,
  flag,
  inEntry,
  inSegment,
  inTimes,
  isWithin,
  principalKind,
  type Times,
} from './layout.ts'

/** An entry: at an offset of a page, the first of a segment or one with a number of its own. */
export interface FoundEntry {
  page: Int32Array
  at: number
  segment: number
  /** `none` for the first one. */
  number: number
}

/**
 * The entries of one segment; until `visit` answers that it has seen enough. What it is given is the same object
 * each time.
 */
export function someEntry(
  index: AccessIndex,
  segment: number,
  visit: (found: FoundEntry) => boolean,
): boolean {
  const row = segment * inSegment.width
  const page = pageAt(index.segments, row)
  const found: FoundEntry = { page, at: offsetIn(row) + inSegment.entry, segment, number: none }
  if (found.page[found.at + inEntry.principal] === none) return false
  for (;;) {
    if (visit(found)) return true
    const next = found.page[found.at + inEntry.next] as number
    if (next === none) return false
    found.page = pageAt(index.entries, next * inEntry.width)
    found.at = offsetIn(next * inEntry.width)
    found.number = next
  }
}

export const principalOf = ({ page, at }: FoundEntry): number => page[at + inEntry.principal] as number
export const isLimit = ({ page, at }: FoundEntry): boolean =>
  ((page[at + inEntry.flags] as number) & flag.limit) !== 0

/** Whether an entry counts at a time. */
export const isLiveEntry = (index: AccessIndex, found: FoundEntry, time: number): boolean =>
  ((found.page[found.at + inEntry.flags] as number) & flag.timed) === 0 ||
  isWithin(timesOf(index, found), time)

/** When an entry begins and ends. */
export function timesOf({ segmentTimes, entryTimes }: AccessIndex, found: FoundEntry): Times {
  const flags = found.page[found.at + inEntry.flags] as number
  return found.number === none
    ? { flags, vector: segmentTimes, address: found.segment * inTimes.width }
    : { flags, vector: entryTimes, address: found.number * inTimes.width }
}

/** A limit on a group spares members who are given share, unless it says otherwise. */
export const isSparing = ({ page, at }: FoundEntry): boolean =>
  ((page[at + inEntry.flags] as number) & flag.spares) !== 0 &&
  ((page[at + inEntry.principal] as number) & 3) !== principalKind.person

/**
 * Every segment of which `isMeant` is not 0, each after the one that it lies in, if that is meant. Rows lie nearly in
 * that order, and are read as they lie: far faster than from one to the next down the tree.
 */
export function forEachSegment(
  { segments }: AccessIndex,
  isMeant: ArrayLike<number>,
  visit: (segment: number, up: number) => void,
): void {
  const isDone = new Uint8Array(isMeant.length)
  const waiting: number[] = []
  for (let row = 0; row < isMeant.length; row += 1) {
    // A row that is free may be meant by what it was.
    if (isMeant[row] === 0 || read(segments, row * inSegment.width + inSegment.head) === none) continue
    let segment = row
    for (;;) {
      const up = read(segments, segment * inSegment.width + inSegment.up)
      if (isDone[segment] === 0) {
        if (up !== none && isMeant[up] !== 0 && isDone[up] === 0) {
          waiting.push(segment)
          segment = up
          continue
        }
        isDone[segment] = 1
        visit(segment, up)
      }
      const next = waiting.pop()
      if (next === undefined) break
      segment = next
    }
  }
}
