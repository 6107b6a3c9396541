import type { HandoverId, ViewingSessionId, NodeId, PersonId, RoleId, WatchId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'

/** An ownership that waits for somebody else's word, what was looked at by a privilege, and what one wants to be told of. */

/** An Owner offers somebody to be Owner instead. Nothing changes before the other's assent. At most one each gives. */
export interface Handover {
  readonly id: HandoverId
  readonly from: PersonId
  readonly to: PersonId
  readonly at: Instant
  readonly reason: string
  /** The role that who hands over holds afterwards. */
  readonly keeps: RoleId
}

/** Somebody looks at what only a privilege shows, for a while. It stays, so that whom it concerns can know of it. */
export interface ViewingSession {
  readonly id: ViewingSessionId
  readonly by: PersonId
  /** Whose eyes are looked through; `null` for the outline of all places. */
  readonly through: PersonId | null
  readonly at: Instant
  readonly until: Instant
  /** Why. */
  readonly reason: string
}

/** How long one look lasts. */
export const viewingTime: Instant = 3_600_000

/** Somebody wants to be told when who has access at a place, or below it, changes. */
export interface Watch {
  readonly id: WatchId
  readonly person: PersonId
  readonly node: NodeId
}
