import { type Vector, vectorOf, write, type Writing, writingOf } from '../base/vector.ts'
import type { Span } from '../base/instant.ts'
import { type AccessIndex, flag, inTimes, partsOfTime } from './layout.ts'

/** The next index while it is being made. The one that it comes from is never touched. */
export interface Making {
  /** All but the vectors that are being written: a copy, whose fields are set. */
  readonly index: { -readonly [K in keyof AccessIndex]: AccessIndex[K] }
  readonly written: { [K in VectorName]?: Writing }
}

/** One record before and after: what really was there, and what is there in the end. */
export interface Changed<Row = unknown> {
  readonly before: Row | null
  readonly after: Row | null
}

export type VectorName = {
  [K in keyof AccessIndex]: AccessIndex[K] extends Vector ? K : never
}[keyof AccessIndex]

type SpareName = 'freeSegments' | 'freeEntries' | 'freeMemberships'

export const makingFrom = (index: AccessIndex): Making => ({ index: { ...index }, written: {} })

export const reading = ({ index, written }: Making, name: VectorName): Vector => written[name] ?? index[name]

export const writing = ({ index, written }: Making, name: VectorName): Writing =>
  (written[name] ??= writingOf(index[name]))

export function made({ index, written }: Making): AccessIndex {
  const vectors = Object.entries(written).map(([name, each]) => [name, vectorOf(each)])
  return { ...index, ...(Object.fromEntries(vectors) as object) }
}

/** The number of a free row. What stands in it is to be written whole. */
export function takeRow(making: Making, name: SpareName): number {
  const { length, free } = making.index[name]
  making.index[name] = free === null ? { length: length + 1, free } : { length, free: free.rest }
  return free?.number ?? length
}

export function giveRowBack(making: Making, name: SpareName, number: number): void {
  const { length, free } = making.index[name]
  making.index[name] = { length, free: { number, rest: free } }
}

/** Writes when a row begins and ends. */
export function writeTimes(to: Writing, address: number, { from, until }: Span): void {
  for (const [field, time] of [
    [inTimes.from, from],
    [inTimes.until, until],
  ] as const) {
    const [high, low] = partsOfTime(time ?? 0)
    write(to, address + field, high)
    write(to, address + field + 1, low)
  }
}

export const flagsOf = ({ from, until }: Span): number =>
  (from === null ? 0 : flag.from) | (until === null ? 0 : flag.until)
