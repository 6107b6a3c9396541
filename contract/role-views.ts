import type { Instant } from '#core/base/instant.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import type { NodeKind } from '#core/tree/node.ts'
import type { PersonName } from './people-views.ts'
import type { PathView, PlaceName, RoleView } from './views.ts'

/** Roles, seats, owners, and what is looked at by a privilege. */

export interface RolesView {
  /** The highest rank first. */
  readonly roles: readonly RoleDetailView[]
  /** How many people have each privilege by any role, over whomever. */
  readonly people: Readonly<Record<Privilege, number>>
  /** What the reader may put into roles, each with the rank up to which; nothing for who may not edit roles. */
  readonly mine: { readonly [P in Privilege]?: number }
  /** Roles below this rank are the reader's to change; `null` for none. */
  readonly below: number | null
}

export interface RoleDetailView extends RoleView {
  readonly rank: number
  readonly privileges: readonly Privilege[]
  readonly addressable: boolean
  readonly seatExempt: boolean
  readonly builtIn: boolean
  readonly madeAt: Instant | null
  readonly madeBy: string | null
  /** Who holds it over whomever, the invited too. */
  readonly people: number
  readonly mayChange: boolean
  readonly isDefault: boolean
  /** Whether its holders are asked for a second step. */
  readonly asksTwoStep: boolean
  /** Names of the welcome sets and join links that offer it. */
  readonly offeredBy: readonly string[]
}

export interface HolderView {
  readonly holding: string
  readonly person: PersonName
  readonly scope: ScopeView
  /** Over whom in words; `null` for the whole workspace. */
  readonly over: string | null
  readonly from: Instant | null
  readonly until: Instant | null
  readonly mayTake: boolean
}

export type ScopeView =
  | { readonly over: 'workspace' }
  | { readonly over: 'guests' }
  | { readonly over: 'team'; readonly team: string }

/** A role that the reader may give to somebody, and over what. */
export interface RoleToGiveView extends RoleView {
  readonly privileges: readonly Privilege[]
  readonly scopes: readonly {
    readonly scope: ScopeView
    readonly name: string
    readonly asleep: readonly Privilege[]
  }[]
}

export interface OwnersView {
  readonly owners: readonly PersonName[]
  readonly handovers: readonly HandoverView[]
  /** Roles that somebody who hands over can keep. */
  readonly roles: readonly PlaceName[]
}

export interface HandoverView {
  readonly id: string
  readonly from: PlaceName
  readonly to: PlaceName
  readonly at: Instant
  readonly reason: string
  readonly keeps: string
}

export interface SeatsView {
  /** `null` for as many as one likes. */
  readonly bought: number | null
  readonly taken: number
  readonly next: { readonly seats: number | null; readonly from: Instant } | null
  /** When the next period begins. */
  readonly nextPeriod: Instant
  /** By whom the seats are taken, and who takes none. */
  readonly parts: Readonly<Record<SeatPart, number>>
  readonly suspendedHoldSeats: boolean
  readonly mayChange: boolean
  /** The plan is simulated: what a seat costs a month, in whole cents. */
  readonly centsPerMonth: number
  /** Oldest first. */
  readonly past: readonly { readonly at: Instant; readonly taken: number; readonly bought: number | null }[]
}

export type SeatPart = 'here' | 'invited' | 'suspended' | 'suspended without' | 'free' | 'guests'

/** Looking by privilege: who may, who did, and what runs now. */
export interface ViewingSessionsView {
  readonly maySeeAs: boolean
  readonly mayOutline: boolean
  readonly people: readonly PersonName[]
  readonly holders: readonly { readonly person: PlaceName; readonly privileges: readonly Privilege[] }[]
  /** The newest first, as far as the reader may know of them. */
  readonly sessions: readonly ViewingSessionView[]
}

export interface ViewingSessionView {
  readonly id: string
  readonly by: PlaceName
  readonly through: PlaceName | null
  readonly at: Instant
  readonly until: Instant
  readonly reason: string
  /** The reader's own, and not over. */
  readonly isOpen: boolean
}

/** A place as a look shows it. */
export interface ViewedPlaceView extends PathView {
  readonly kind: NodeKind
  readonly home: 'team' | 'person' | 'shared' | null
  readonly hasChildren: boolean
  readonly isBroken: boolean
  /** What the one who is looked through has there; `null` in the outline. */
  readonly actions: number | null
}

export interface ViewedView {
  readonly session: ViewingSessionView
  /** The place that is open; `null` at the top. */
  readonly place:
    (ViewedPlaceView & { readonly through: readonly string[]; readonly text: string | null }) | null
  readonly children: readonly ViewedPlaceView[]
  /** At the top of the outline: whose private folders there are besides, the first of them by name. */
  readonly kept: { readonly of: readonly string[]; readonly count: number }
}
