import { entireWorkspace, rankFor } from '../../access/powers.ts'
import { isActive } from '../../access/subject.ts'
import { rowOf } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import { type ViewingSession, viewingTime } from '../../people/asking.ts'
import { type EditRule, isTaken } from '../context.ts'
import type { PersonId, ViewingSessionId } from '../../base/ids.ts'

export interface BeginViewing {
  readonly kind: 'session.begin'
  readonly session: ViewingSessionId
  readonly through: PersonId | null
  readonly reason: string
}

/**
 * Begins to look at what only a privilege shows: through somebody's eyes, or at the outline. It says why, stands in
 * the history, and ends by itself after a while.
 */
export const beginViewing: EditRule<BeginViewing> = {
  kind: 'session.begin',
  lacks: ({ before, author }, { through }) => {
    const privilege = through === null ? 'see the outline' : 'see as'
    const rank = rankFor(before, author, { privilege, target: entireWorkspace })
    return rank === undefined ? { code: 'privilege-missing', privilege } : undefined
  },
  apply: ({ now, author }, { session: id, through, reason }) => {
    if (isTaken(now.state, 'viewingSessions', id)) return refused({ code: 'already-there', what: 'id' })
    const person = through === null ? undefined : rowOf(now.state.persons, through)
    if (through !== null && (person === undefined || !isActive(now, person) || through === author))
      return refused({ code: 'unknown', what: 'person' })
    if (reason.trim() === '') return refused({ code: 'reason-missing' })
    const after: ViewingSession = {
      id,
      by: author,
      through,
      at: now.at,
      until: now.at + viewingTime,
      reason,
    }
    return ok([{ table: 'viewingSessions', id, before: null, after }])
  },
}
