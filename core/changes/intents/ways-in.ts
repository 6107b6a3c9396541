import type { JoinLinkId, WelcomeSetId } from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'
import type { Offer } from '../../rules/offer.ts'

/** Named offers, and links by which people come in by themselves. */

export interface CreateWelcomeSet {
  readonly kind: 'welcome.create'
  readonly welcome: WelcomeSetId
  readonly name: string
  readonly note: string
  readonly offer: Offer
}

export interface ChangeWelcomeSet {
  readonly kind: 'welcome.change'
  readonly welcome: WelcomeSetId
  readonly name?: string | undefined
  readonly note?: string | undefined
  readonly offer?: Offer | undefined
}

export interface DeleteWelcomeSet {
  readonly kind: 'welcome.delete'
  readonly welcome: WelcomeSetId
}

export interface CreateJoinLink {
  readonly kind: 'link.create'
  readonly link: JoinLinkId
  readonly name: string
  readonly until: Instant
  readonly domains: readonly string[]
  readonly most: number | null
  readonly welcome: WelcomeSetId | null
  readonly offer: Offer
}

/** By its maker only: what it gives, it gives by its maker's rights. */
export interface ChangeJoinLink {
  readonly kind: 'link.change'
  readonly link: JoinLinkId
  readonly name?: string | undefined
  readonly until?: Instant | undefined
  readonly domains?: readonly string[] | undefined
  readonly most?: number | null | undefined
}

export interface WithdrawJoinLink {
  readonly kind: 'link.withdraw'
  readonly link: JoinLinkId
}

/** Somebody comes by it: goes with the invitation that the link's maker gives by it. Never accepted from outside. */
export interface UseJoinLink {
  readonly kind: 'link.use'
  readonly link: JoinLinkId
  readonly mail: string
}
