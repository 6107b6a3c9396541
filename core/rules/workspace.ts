import type { PictureId, RoleId, WorkspaceId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import type { ActionSet } from '../levels/action.ts'
import { levelActions } from '../levels/level.ts'
import { memberRole } from '../people/role.ts'

/** The workspace itself: its name and its policies. */
export interface Workspace {
  readonly id: WorkspaceId
  readonly name: string
  /** Stands in addresses. */
  readonly slug: string
  /** IANA name; "through a date" means the end of that day there. */
  readonly timeZone: string
  readonly madeAt: Instant
  /** What a guest can have at most, whatever is granted. */
  readonly guestCeiling: ActionSet
  readonly allowsPublishing: boolean
  readonly defaultRole: RoleId
  /** How many members there can be; `null` for as many as one likes. */
  readonly seats: number | null
  /** How many there are from the next period on, if that is another number. */
  readonly seatsNext: { readonly seats: number | null; readonly from: Instant } | null
  /** Whether somebody suspended keeps the seat. */
  readonly suspendedHoldSeats: boolean
  readonly picture: PictureId | null
  /** Mail domains from which members, and guests, may come; any, if there are none. */
  readonly memberDomains: readonly string[]
  readonly guestDomains: readonly string[]
  /** For how many days the link of an invitation works. */
  readonly invitationDays: number
  /** What is accepted on coming in; empty for nothing. */
  readonly houseRules: string
  /** Holders of these roles need a second step at sign-in. */
  readonly twoStepFor: readonly RoleId[]
  /** A sign-in ends so many days after it began, and so many hours after it was used last. */
  readonly signInDays: number
  readonly idleHours: number
  /** The most bytes that one file may have, and all files together with their versions; `null` for as many as there is room. */
  readonly largestFile: number
  readonly storageQuota: number | null
  /** So many versions of a file are kept, the newest. */
  readonly versionsKept: number
  /** Whether what is shown of a file to who may not take it is marked with their name and the day. */
  readonly marksPreviews: boolean
}

/** What a new workspace begins with. */
export const usualPolicies: Omit<Workspace, 'id' | 'name' | 'slug' | 'timeZone' | 'madeAt'> = {
  guestCeiling: levelActions('Editor'),
  allowsPublishing: true,
  defaultRole: memberRole,
  seats: null,
  seatsNext: null,
  suspendedHoldSeats: true,
  picture: null,
  memberDomains: [],
  guestDomains: [],
  invitationDays: 14,
  houseRules: '',
  twoStepFor: [],
  signInDays: 14,
  idleHours: 7 * 24,
  largestFile: 5 * 1024 ** 3,
  storageQuota: null,
  versionsKept: 20,
  marksPreviews: false,
}
