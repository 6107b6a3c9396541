/** Milliseconds since 1970 UTC. The core is always told the instant and never reads a clock. */
export type Instant = number

/** When something counts: from ≤ t < until; an absent bound is open. */
export interface Span {
  readonly from: Instant | null
  readonly until: Instant | null
}

export const always: Span = { from: null, until: null }

export function isLive(span: Span, at: Instant): boolean {
  return (span.from === null || span.from <= at) && (span.until === null || at < span.until)
}

/** Neither live now nor ever again. */
export const isOver = (span: Span, at: Instant): boolean => span.until !== null && span.until <= at

/** True if `a` ends later than `b`; an open end is the latest of all. */
export function endsLater(a: Instant | null, b: Instant | null): boolean {
  return b !== null && (a === null || a > b)
}

export const earlierEnd = (a: Instant | null, b: Instant | null): Instant | null => (endsLater(a, b) ? b : a)
