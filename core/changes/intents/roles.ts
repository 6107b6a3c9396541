import type { HandoverId, HoldingId, LookId, PersonId, RoleId } from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'
import type { Privilege } from '../../levels/privilege.ts'
import type { Scope } from '../../people/person.ts'

/** What can be done about roles, ownership, seats, and looking by privilege. */

export interface GiveRole {
  readonly kind: 'role.give'
  readonly holding: HoldingId
  readonly person: PersonId
  readonly role: RoleId
  readonly scope: Scope
  readonly from: Instant | null
  readonly until: Instant | null
}

export interface TakeRole {
  readonly kind: 'role.take'
  readonly holding: HoldingId
}

export interface CreateRole {
  readonly kind: 'role.create'
  readonly role: RoleId
  readonly name: string
  readonly note: string
  readonly rank: number
  readonly privileges: readonly Privilege[]
  readonly addressable: boolean
  readonly seatExempt: boolean
}

export interface ChangeRole {
  readonly kind: 'role.change'
  readonly role: RoleId
  readonly name?: string | undefined
  readonly note?: string | undefined
  readonly rank?: number | undefined
  readonly privileges?: readonly Privilege[] | undefined
  readonly addressable?: boolean | undefined
  readonly seatExempt?: boolean | undefined
}

export interface DeleteRole {
  readonly kind: 'role.delete'
  readonly role: RoleId
}

/** An Owner offers another member to be Owner instead. */
export interface OfferHandover {
  readonly kind: 'handover.offer'
  readonly handover: HandoverId
  readonly to: PersonId
  readonly keeps: RoleId
  readonly word: string
}

export interface WithdrawHandover {
  readonly kind: 'handover.withdraw'
  readonly handover: HandoverId
}

export interface AnswerHandover {
  readonly kind: 'handover.answer'
  readonly handover: HandoverId
  readonly accepted: boolean
  /** Ids for the role that the new Owner gets and the one that the earlier one keeps. */
  readonly holding: HoldingId
  readonly kept: HoldingId
}

export interface ChangeSeats {
  readonly kind: 'seats.change'
  readonly seats?: number | null | undefined
  readonly suspendedHoldSeats?: boolean | undefined
  /** From when on there are that many: `null` for at once. */
  readonly from: Instant | null
}

export interface BeginLook {
  readonly kind: 'look.begin'
  readonly look: LookId
  readonly through: PersonId | null
  readonly word: string
}
