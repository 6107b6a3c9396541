import type { RoleId, WorkspaceId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import type { ActionSet } from '../levels/action.ts'

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
  /** Whether somebody suspended keeps the seat. */
  readonly suspendedHoldSeats: boolean
}
