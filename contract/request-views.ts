import type { Instant } from '#core/base/instant.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import type { PathView, PlaceName } from './views.ts'

/** What people ask others for: a place in a team, a role, what a privilege lets one do, access to a place. */

export type WantedView = TeamWantedView | RoleWantedView | AccessWantedView

export interface TeamWantedView {
  readonly of: 'team'
  readonly team: PlaceName
}

/** A role by its name, or what a privilege lets one do. */
export type RoleWantedView =
  | { readonly of: 'role'; readonly role: PlaceName }
  | { readonly of: 'privilege'; readonly privilege: Privilege }

export interface AccessWantedView {
  readonly of: 'access'
  readonly place: PathView
  /** Masks: what is asked for, and what they have there now. */
  readonly actions: number
  readonly has: number
}

/** Who asks for what, for whoever may decide it. */
export interface RequestView<W extends WantedView = WantedView> {
  readonly id: string
  readonly person: PlaceName
  readonly isGuest: boolean
  readonly wants: W
  readonly at: Instant
  readonly reason: string
}

/** One's own request, the declined ones too. */
export interface MyRequestView<W extends MyWantedView = MyWantedView> {
  readonly id: string
  readonly wants: W
  readonly at: Instant
  readonly reason: string
  readonly declined: { readonly by: string; readonly comment: string } | null
}

export type MyWantedView = TeamWantedView | RoleWantedView | MyAccessWantedView

/** A place that one cannot see goes by its address alone. */
export interface MyAccessWantedView {
  readonly of: 'access'
  readonly address: string
  readonly place: PlaceName | null
  readonly actions: number
}

export interface RequestsView {
  /** The first first. */
  readonly toDecide: readonly RequestView[]
  /** The last first. */
  readonly mine: readonly MyRequestView[]
  /** Roles that the reader knows of and could ask for. */
  readonly roles: readonly PlaceName[]
}
