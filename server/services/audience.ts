import type { NodeId, PersonId } from '#core/base/ids.ts'
import type { AuditEvent } from '#core/changes/audit-event.ts'
import { type Asker, maySee } from './asker.ts'
import { knowsOf } from './audit-event.ts'

/** Whom something concerns: data alone, since an event is kept long after the states that it came from. */
export interface Audience {
  /** So much changed that nobody is left out. */
  readonly isAll?: boolean
  readonly people?: ReadonlySet<PersonId>
  /** All who know of one of these. */
  readonly events?: readonly AuditEvent[]
  /** All who see this place. */
  readonly node?: NodeId
}

export const isInAudience = (
  reader: Asker,
  { isAll = false, people, events = [], node }: Audience,
): boolean =>
  isAll ||
  people?.has(reader.person) === true ||
  events.some(event => event.person === reader.person || knowsOf(reader, event)) ||
  (node !== undefined && maySee(reader, node))
