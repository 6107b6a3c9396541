import type { Instant } from '#core/base/instant.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import type { Person } from '#core/people/person.ts'
import type { EditRequest, OfferRequest } from './edit-requests.ts'
import type { Problem } from './problem.ts'
import type { HandoverView, ViewingSessionView } from './role-views.ts'
import type { PathView, PlaceName } from './views.ts'

/** People as lists, profiles and offers tell of them. */

/** As much as picking somebody takes. */
export interface PersonName extends PlaceName {
  readonly mail: string
  readonly kind: Person['kind']
  readonly status: Person['status']
}

export interface PersonView extends PersonName {
  readonly handle: string | null
  readonly title: string
  /** A guest's organisation. */
  readonly department: string
  readonly country: string
  readonly picture: string | null
  readonly teams: readonly PersonTeamView[]
  readonly joinedAt: Instant | null
  /** Whom a guest turns to. */
  readonly contact: PlaceName | null
  /** What those who look after people are told besides; `null` for everybody else. */
  readonly keeping: KeepingView | null
}

/** What who looks after people is told of somebody. */
export interface KeepingView {
  readonly roles: readonly HoldingView[]
  readonly from: Instant | null
  readonly until: Instant | null
  readonly lastActive: Instant | null
  readonly takesSeat: boolean
  readonly hasTwoStep: boolean
  /** False where the address was never confirmed by a mail. */
  readonly isConfirmed: boolean
  /** Who brought them in. */
  readonly invitedBy: string | null
  /** For the invited: who did, when, and until when the link works. */
  readonly invitation: InvitedView | null
  /** For guests: the topmost places that they reach, as far as the reader may be told. */
  readonly reaches: readonly PlaceName[] | null
  /** What the reader may do about this person. */
  readonly may: readonly PersonAct[]
}

export interface InvitedView {
  readonly by: string
  readonly at: Instant
  readonly until: Instant
  readonly message: string
}

export type PersonAct =
  | 'suspend'
  | 'remove'
  | 'convert'
  | 'assign'
  | 'describe'
  | 'invite'
  /** Pass an open invitation's link on by hand. */
  | 'pass on'
  | 'contact'
  | 'reset sign-in'

export interface PersonTeamView extends PlaceName {
  readonly lead: boolean
  /** All members are in it. */
  readonly isForAll: boolean
}

/** A role that a person holds. */
export interface HoldingView {
  readonly id: string
  readonly role: string
  readonly name: string
  /** Whose people it is held over; `null` for the whole workspace. */
  readonly over: string | null
  readonly from: Instant | null
  readonly until: Instant | null
}

/** One person with all that is known of them. */
export interface PersonDetailView extends PersonView {
  /** Handles that lead here too. */
  readonly formerHandles: readonly string[]
  readonly agreedAt: Instant | null
  /** What their roles let them do, each with where it comes from; to themselves and to whoever looks after them. */
  readonly powers: readonly PowerView[] | null
  /** Which of their roles the reader may take from them, by the ids of `keeping.roles`. */
  readonly takeable: readonly string[]
  /** Sign-ins, to whoever may reset them. */
  readonly signIns: readonly { readonly at: string; readonly lastUsed: Instant | null }[] | null
}

/** One privilege of somebody, and the roles it comes from, with over whom each is held. */
export interface PowerView {
  readonly privilege: Privilege
  readonly from: readonly {
    readonly role: string
    readonly over: string | null
    /** It has no effect over that scope. */
    readonly isAsleep: boolean
  }[]
}

/** A place where somebody has access, and by what: those below that have just the same are counted, not listed. */
export interface AccessiblePlaceView extends PathView {
  readonly kind: string
  readonly actions: number
  readonly through: readonly string[]
  /** How many places below have the same. */
  readonly alike: number
}

/** A place that can be offered: where the asker gives access. */
export interface PlaceHit extends PathView {
  readonly actions: number
}

/** What one may do oneself, and where each piece of it comes from. */
export interface MyAccessView {
  readonly roles: readonly (HoldingView & {
    readonly note: string
    readonly privileges: readonly Privilege[]
    /** Those that have no effect over what it is held over. */
    readonly asleep: readonly Privilege[]
  })[]
  /** Owners who offer to hand the workspace over to one. */
  readonly handovers: readonly HandoverView[]
  /** Who looked through one's eyes, the newest first. */
  readonly viewingSessions: readonly ViewingSessionView[]
  readonly teams: readonly PersonTeamView[]
  /** With the end of what was given there to the reader by name. */
  readonly places: readonly (AccessiblePlaceView & { readonly until: Instant | null })[]
  readonly contact: PlaceName | null
  readonly invitedBy: string | null
  readonly from: Instant | null
  readonly until: Instant | null
}

/** What becomes of what somebody alone keeps, when they leave. */
export interface OffboardingView {
  /** Teams that nobody else leads. */
  readonly teams: readonly TakenOverView[]
  /** Places where nobody else gives and takes access: those that the asker may know of. */
  readonly places: readonly KeptPlaceView[]
  /** Whether there are more that the asker may not know of. */
  readonly hasMore: boolean
  readonly guests: readonly PlaceName[]
  readonly links: readonly PlaceName[]
}

export interface KeptPlaceView extends TakenOverView {
  readonly path: string
  /** The team whose next lead gives access there too: then nobody else has to. */
  readonly withTeam: string | null
}

export interface TakenOverView extends PlaceName {
  /** Whether the asker may name who takes over, and how. */
  readonly may: 'give' | 'recover' | null
}

/** One address of a list, judged. */
export interface AddressView {
  readonly mail: string
  readonly name: string
  readonly verdict:
    | 'new'
    | 'here already'
    | 'invited already'
    | 'suspended'
    | 'removed earlier'
    | 'twice in the list'
    | 'not an address'
    | 'domain not welcome'
  /** What was probably meant, where it looks like a slip. */
  readonly meant: string | null
  /** Its name is in another script, which not every mail server takes (SMTPUTF8). */
  readonly isOfOtherScript: boolean
  readonly person: string | null
}

/** What somebody who comes by an offer could see and do: put together as if they were here. */
export interface OfferView {
  readonly places: readonly AccessiblePlaceView[]
  readonly privileges: readonly Privilege[]
  /** Those of the privileges that have no effect over the scope of the role. */
  readonly asleep: readonly Privilege[]
  readonly role: string
  readonly teams: readonly string[]
  /** Seats after one more comes, where they are counted. */
  readonly seats: { readonly taken: number; readonly bought: number | null; readonly each: 0 | 1 }
  /** Why it would be refused. */
  readonly problem: Problem | null
}

export interface PlaceNamesView {
  readonly [node: string]:
    { readonly name: string; readonly path: string; readonly atMost: number } | undefined
}

export interface WelcomeSetView extends PlaceName {
  readonly note: string
  readonly offer: OfferRequest
  /** What the places of the offer are called, and what the asker may give there. */
  readonly placeNames: PlaceNamesView
  /** People still invited with it. */
  readonly invited: readonly PlaceName[]
  readonly links: number
  readonly mayChange: boolean
  /** A join link of somebody else gives what it offers, by that one's rights; so the asker does not change that. */
  readonly isGivenByAnother: boolean
}

export interface JoinLinkView extends PlaceName {
  readonly by: string
  readonly at: Instant
  readonly until: Instant
  readonly domains: readonly string[]
  readonly most: number | null
  readonly used: number
  readonly welcome: string | null
  readonly offer: OfferRequest
  readonly placeNames: PlaceNamesView
  readonly isOpen: boolean
  /** Whether somebody who comes by it now is let in: an open link fails where its maker may not give what it offers. */
  readonly letsIn: boolean
  /** To be passed on, for those who may invite such people. */
  readonly address: string | null
  readonly mayChange: boolean
  readonly mayWithdraw: boolean
}

/** What a join link leads to. */
export interface JoinLinkOfferView {
  readonly workspace: string
  readonly by: string
  readonly as: Person['kind']
  readonly role: string | null
  readonly teams: number
  readonly places: number
  readonly from: Instant | null
  readonly until: Instant | null
  readonly timeZone: string
  readonly domains: readonly string[]
  readonly houseRules: string
}

/** Either one is in, or an invitation waits, or a mail is on its way. */
export interface JoinedByLinkView {
  readonly slug: string | null
  readonly invitation: string | null
}

/** One row of a table that is brought in, judged. */
export interface ImportedRowView {
  readonly verdict: 'new' | 'changes' | 'as it is' | 'wrong'
  /** What would be done, or what is wrong, one sentence each. */
  readonly says: readonly string[]
  readonly edits: readonly EditRequest[]
}

/** Welcome sets and join links, for whoever invites people. */
export interface OnboardingView {
  readonly welcomeSets: readonly WelcomeSetView[]
  readonly joinLinks: readonly JoinLinkView[]
}
