import type { HandoverId, LookId, PersonId, RoleId, RoleRequestId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import type { Privilege } from '../levels/privilege.ts'

/** What waits for somebody else's word about roles, and what was looked at by a privilege. */

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
