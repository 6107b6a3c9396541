import type { Instant } from '../../base/instant.ts'
import { spansOf } from '../../state/moment.ts'
import type { Whole } from './guard.ts'

/** Now and every later start and end in either state: in between, nothing changes by itself. */
export function instantsOf({ before, after }: Pick<Whole, 'before' | 'after'>): Instant[] {
  const bounds = [...spansOf(before.state), ...spansOf(after.state)].flatMap(span => [span.from, span.until])
  const later = bounds.filter(bound => bound !== null && bound > after.at) as Instant[]
  return [...new Set([after.at, ...later])].sort((a, b) => a - b)
}

/** After the last end there is no later one: what still stands then stands for good. */
export const afterAllEnds: Instant = Number.POSITIVE_INFINITY
