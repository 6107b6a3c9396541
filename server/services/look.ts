import type { LookView } from '#contract/role-views.ts'
import type { ViewingSession } from '#core/people/asking.ts'
import type { Parts } from '../parts.ts'
import { type Asker, nameOf } from './asker.ts'

/** One look, to who looked, whom it was through, or who reads the history. */
export function lookView({ clock }: Parts, { snapshot, person }: Asker, look: ViewingSession): LookView {
  const { id, by, through, at, until, word } = look
  return {
    id,
    by: { id: by, name: nameOf(snapshot, by) },
    through: through === null ? null : { id: through, name: nameOf(snapshot, through) },
    at,
    until,
    word,
    isOpen: by === person && until > clock(),
  }
}
