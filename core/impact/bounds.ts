import type { Instant, Span } from '../base/instant.ts'
import type { Transition } from '../changes/affected-scope.ts'
import type { RecordChange } from '../state/state.ts'

/** When, after now, something begins or ends of what is changed itself: the earliest first. */
export function boundsIn({ changes, after }: Pick<Transition, 'changes' | 'after'>): Instant[] {
  const bounds = changes.flatMap(each => [each.before, each.after].flatMap(row => boundsOf(row)))
  return [...new Set(bounds)].filter(bound => bound > after.at).sort((a, b) => a - b)
}

export const boundsOf = (row: RecordChange['after']): Instant[] => {
  const { from = null, until = null } = (row ?? {}) as Partial<Span>
  return [from, until].filter(bound => bound !== null)
}
