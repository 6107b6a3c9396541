import type {
  AccountId,
  HandleId,
  HoldingId,
  InvitationId,
  MembershipId,
  PersonId,
  PictureId,
  RoleId,
  TeamId,
  WelcomeSetId,
} from '../base/ids.ts'
import type { Instant, Span } from '../base/instant.ts'

/** An account in one workspace. Roles, teams and access hang on the person; sign-in belongs to the account. */
export interface Person extends Span {
  readonly id: PersonId
  /** The account that holds this person; none before the invitation is accepted. */
  readonly account: AccountId | null
  readonly name: string
  readonly mail: string
  /** The short name by which colleagues call this person; those it had before keep leading here. */
  readonly handle: HandleId | null
  readonly title: string
  /** A department; for a guest the organisation. */
  readonly department: string
  readonly country: string
  readonly picture: PictureId | null
  readonly kind: 'member' | 'guest'
  readonly status: 'invited' | 'active' | 'suspended' | 'removed'
  /** Who answers for this person: whom a guest turns to. */
  readonly contact: PersonId | null
  /** Who brought this person in; nobody did the founder, nor is it known of everyone. */
  readonly invitedBy: PersonId | null
  readonly joinedAt: Instant | null
  /** When the house rules were accepted; `null` where there were none. */
  readonly agreedAt: Instant | null
}

/** A profile that tells nothing yet. */
export const blankProfile = {
  handle: null,
  title: '',
  department: '',
  country: '',
  picture: null,
} as const satisfies Partial<Person>

/** A handle that a person has or had: it leads to that person and is never another's. */
export interface Handle {
  readonly id: HandleId
  readonly person: PersonId
  readonly since: Instant
}

export interface Team {
  readonly id: TeamId
  readonly name: string
  readonly note: string
  readonly picture: PictureId | null
  /** Everyone: all members are in. Open: members join. Request: they ask. Unlisted: only its people know it. */
  readonly joining: 'everyone' | 'open' | 'request' | 'unlisted'
  readonly welcomesGuests: boolean
  readonly archived: boolean
  /** Since when; `null` where it is not, or nobody knows any more. */
  readonly archivedAt: Instant | null
  readonly allowsPublishing: boolean
  /** Who writes in its channels. */
  readonly posting: 'everyone' | 'members' | 'leads'
  /** Who may address everyone in a channel at once. */
  readonly addressing: 'everyone' | 'leads'
  /** Who is in it is kept by the organisation's directory; its leads are named here. */
  readonly keptByDirectory: boolean
  readonly madeAt: Instant
}

/** At most one for a person and a team. */
export interface Membership extends Span {
  readonly id: MembershipId
  readonly team: TeamId
  readonly person: PersonId
  readonly lead: boolean
  readonly since: Instant
}

/** A role held by a person over a scope. */
export interface Holding extends Span {
  readonly id: HoldingId
  readonly person: PersonId
  readonly role: RoleId
  readonly scope: Scope
}

export type Scope =
  | { readonly over: 'workspace' }
  | { readonly over: 'team'; readonly team: TeamId }
  | { readonly over: 'guests' }

/** What was offered to an address. It ends when it is accepted or withdrawn; its link dies at `until`. */
export interface Invitation {
  readonly id: InvitationId
  readonly person: PersonId
  readonly by: PersonId
  readonly at: Instant
  readonly until: Instant
  readonly message: string
  /** Counts up when the invitation is sent anew: earlier links die. */
  readonly issue: number
  /** The welcome set that it was made with. */
  readonly welcome: WelcomeSetId | null
}
