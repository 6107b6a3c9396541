import type { ViewingSessionView } from '#contract/views/viewing.ts'
import type { ViewingSession } from '#core/people/asking.ts'
import type { Parts } from '../../parts.ts'
import { type Asker, nameOf } from '../viewer/asker.ts'

/** One look, to who looked, whom it was through, or who reads the history. */
export function viewingSessionView(
  { clock }: Parts,
  { snapshot, person }: Asker,
  session: ViewingSession,
): ViewingSessionView {
  const { id, by, through, at, until, reason } = session
  return {
    id,
    by: { id: by, name: nameOf(snapshot, by) },
    through: through === null ? null : { id: through, name: nameOf(snapshot, through) },
    at,
    until,
    reason,
    isOpen: by === person && until > clock(),
  }
}
