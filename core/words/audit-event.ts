import type { NodeId, PersonId, RoleId } from '../base/ids.ts'
import type { Instant, Span } from '../base/instant.ts'
import type { ChangeOf, Kinded } from '../changes/conduct.ts'
import type { AuditEvent } from '../changes/audit-event.ts'
import type { Gives } from '../rules/access-entry.ts'
import type { Principal } from '../rules/principal.ts'
import type { TableName } from '../state/kinds.ts'
import type { Naming } from './refusal.ts'

/** Names for telling what was done; whoever tells a fact has made sure that it may be named. */
export interface EventNaming extends Naming {
  readonly principal: (principal: Principal) => string
  /** A place with what it stands in, where many are called alike: "Method in Harrow Creek". */
  readonly where: (node: NodeId) => string | undefined
  readonly level: (gives: Gives) => string
  readonly role: (role: RoleId) => string
  /** The last day that an end includes. */
  readonly through: (until: Instant) => string
  /** A first day: "on 3 Mar", or "at once". */
  readonly since: (from: Instant | null) => string
}

/** How what was done to a record of a kind is told, after its author's name: "gave Pilar Onsund Editor on Harrow Creek". */
export interface RecordWords<T extends TableName = TableName> {
  readonly words: (change: ChangeOf<T>, naming: EventNaming) => string
}

export const eventInWords = ({ kinds }: Kinded, { change }: AuditEvent, naming: EventNaming): string =>
  (kinds[change.table] as unknown as RecordWords).words(change, naming)

export const lasting = ({ until }: Span, { through }: EventNaming) =>
  until === null ? '' : ` until ${through(until)}`

export const personNamed = (person: PersonId | undefined, naming: Pick<EventNaming, 'person'>) =>
  (person === undefined ? undefined : naming.person(person)) ?? 'somebody'
