import type {
  AccessRequestId,
  HandoverId,
  LookId,
  NodeId,
  PersonId,
  RoleId,
  RoleRequestId,
  WatchId,
} from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import type { ActionSet } from '../levels/action.ts'
import type { Privilege } from '../levels/privilege.ts'

/** What waits for somebody else's word, what was looked at by a privilege, and what one wants to be told of. */

/** Somebody asks for a role, or for what a privilege lets one do. Given, it goes; declined, it stays with its answer. */
export interface RoleRequest {
  readonly id: RoleRequestId
  readonly person: PersonId
  readonly wants: RoleWanted
  readonly at: Instant
  readonly word: string
  readonly declined: { readonly by: PersonId; readonly at: Instant; readonly word: string } | null
}

export type RoleWanted = { readonly role: RoleId } | { readonly privilege: Privilege }

/** An Owner offers somebody to be Owner instead. Nothing changes before the other's assent. At most one each gives. */
export interface Handover {
  readonly id: HandoverId
  readonly from: PersonId
  readonly to: PersonId
  readonly at: Instant
  readonly word: string
  /** The role that who hands over holds afterwards. */
  readonly keeps: RoleId
}

/** Somebody looks at what only a privilege shows, for a while. It stays, so that whom it concerns can know of it. */
export interface Look {
  readonly id: LookId
  readonly by: PersonId
  /** Whose eyes are looked through; `null` for the outline of all places. */
  readonly through: PersonId | null
  readonly at: Instant
  readonly until: Instant
  /** Why. */
  readonly word: string
}

/** How long one look lasts. */
export const lookTime: Instant = 3_600_000

/**
 * Somebody asks for access to a place, by its address: one that they cannot see, or that is not there at all, is
 * asked for alike. Given, it goes; declined, it stays with its answer; after a while it is over by itself.
 */
export interface AccessRequest {
  readonly id: AccessRequestId
  readonly person: PersonId
  readonly node: NodeId
  readonly wants: ActionSet
  readonly at: Instant
  readonly word: string
  readonly declined: { readonly by: PersonId; readonly at: Instant; readonly word: string } | null
}

const day: Instant = 86_400_000
/** Unanswered for so long, those who were told are reminded. */
export const remindAfter: Instant = 2 * day
/** And so long, it goes on to everybody who may decide it. */
export const goesOnAfter: Instant = 5 * day
/** So long after it was made, a request is over. */
export const requestTime: Instant = 60 * day

/** Somebody wants to be told when who has access at a place, or below it, changes. */
export interface Watch {
  readonly id: WatchId
  readonly person: PersonId
  readonly node: NodeId
}
