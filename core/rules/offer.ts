import type { JoinLinkId, NodeId, PersonId, RoleId, TeamId, WelcomeSetId } from '../base/ids.ts'
import type { Instant, Span } from '../base/instant.ts'
import type { Person } from '../people/person.ts'
import type { Gives } from './access-entry.ts'

/** What somebody who comes in is given. Only what whoever gives it may give is given, judged when it is. */
export interface Offer extends Span {
  readonly as: Person['kind']
  /** Another role than the workspace's default one; guests hold Guest and no other. */
  readonly role: RoleId | null
  readonly teams: readonly TeamId[]
  readonly places: readonly { readonly node: NodeId; readonly gives: Gives }[]
}

/** An offer under a name, for invitations, links and imports. Changing it changes what is offered from then on. */
export interface WelcomeSet {
  readonly id: WelcomeSetId
  readonly name: string
  readonly note: string
  readonly offer: Offer
}

/**
 * A link by which people come in by themselves: whoever proves an address is invited by the link's maker, who
 * has to be able to invite them then.
 */
export interface JoinLink {
  readonly id: JoinLinkId
  readonly name: string
  readonly by: PersonId
  readonly at: Instant
  /** When the link dies. */
  readonly until: Instant
  /** Only addresses of these mail domains; any, if there are none. */
  readonly domains: readonly string[]
  /** How many people can come by it; `null` for as many as there are seats. */
  readonly most: number | null
  readonly used: number
  /** The welcome set that it offers; its own offer counts if there is none. */
  readonly welcome: WelcomeSetId | null
  readonly offer: Offer
}
