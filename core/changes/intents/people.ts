import type {
  AccountId,
  ChannelId,
  GrantId,
  HandleId,
  HoldingId,
  InvitationId,
  LevelId,
  MembershipId,
  NodeId,
  PersonId,
  PictureId,
  RoleId,
  TeamId,
  WelcomeSetId,
} from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'
import type { ActionSet } from '../../levels/action.ts'
import type { Person, Scope, Team } from '../../people/person.ts'
import type { Principal } from '../../rules/principal.ts'

/** What can be done about people, teams, channels and the workspace itself. */

export interface InvitePerson {
  readonly kind: 'person.invite'
  readonly person: PersonId
  readonly invitation: InvitationId
  readonly holding: HoldingId
  readonly mail: string
  readonly name: string
  readonly as: 'member' | 'guest'
  /** The role offered, if it is not the workspace's default one. Guests hold Guest and no other. */
  readonly role: RoleId | null
  readonly scope: Scope
  /** When the person's time in the workspace begins and ends by itself. */
  readonly from: Instant | null
  readonly until: Instant | null
  /** What is known of them already. */
  readonly profile: Partial<Profile>
  /** The welcome set that is offered. */
  readonly welcome: WelcomeSetId | null
  /** Whether it goes out by mail; else its link is passed on by hand. */
  readonly mailed: boolean
  /** When the link dies. */
  readonly linkUntil: Instant
  readonly message: string
}

/** What a person's profile tells besides the name. */
export interface Profile {
  readonly handle: HandleId | null
  readonly title: string
  readonly department: string
  readonly country: string
  readonly picture: PictureId | null
}

/** What was offered to somebody who has not come in yet; teams and places are changed where they are. */
export interface ChangeInvitation {
  readonly kind: 'invitation.change'
  readonly person: PersonId
  readonly name?: string | undefined
  readonly role?: RoleId | undefined
  readonly from?: Instant | null | undefined
  readonly until?: Instant | null | undefined
  readonly message?: string | undefined
}

export interface WithdrawInvitation {
  readonly kind: 'invitation.withdraw'
  readonly person: PersonId
}

export interface RenewInvitation {
  readonly kind: 'invitation.renew'
  readonly person: PersonId
  readonly linkUntil: Instant
}

/** By the invited, at sign-up; never accepted from outside without the link. */
export interface AcceptInvitation {
  readonly kind: 'invitation.accept'
  readonly person: PersonId
  readonly account: AccountId
  readonly name: string
  /** The first handle; none where the person has one from before. */
  readonly handle: HandleId | null
  /** Whether the house rules are accepted. */
  readonly agrees: boolean
  /** The private folder that a member gets. */
  readonly folder: NodeId
  readonly grant: GrantId
}

export interface CreateTeam {
  readonly kind: 'team.create'
  readonly team: TeamId
  readonly home: NodeId
  readonly name: string
  readonly note: string
  readonly joining: Team['joining']
  readonly welcomesGuests: boolean
}

export interface ChangeTeam {
  readonly kind: 'team.change'
  readonly team: TeamId
  readonly name?: string | undefined
  readonly note?: string | undefined
  readonly joining?: Team['joining'] | undefined
  readonly welcomesGuests?: boolean | undefined
  readonly picture?: PictureId | null | undefined
  readonly allowsPublishing?: boolean | undefined
  readonly posting?: Team['posting'] | undefined
  readonly addressing?: Team['addressing'] | undefined
  readonly keptByDirectory?: boolean | undefined
}

export interface AddMember {
  readonly kind: 'member.add'
  readonly membership: MembershipId
  readonly team: TeamId
  readonly person: PersonId
  readonly lead: boolean
  readonly from: Instant | null
  readonly until: Instant | null
}

export interface ChangeMember {
  readonly kind: 'member.change'
  readonly team: TeamId
  readonly person: PersonId
  readonly lead?: boolean | undefined
  readonly until?: Instant | null | undefined
}

export interface TakeMember {
  readonly kind: 'member.take'
  readonly team: TeamId
  readonly person: PersonId
}

export interface SuspendPerson {
  readonly kind: 'person.suspend'
  readonly person: PersonId
}

export interface ResumePerson {
  readonly kind: 'person.resume'
  readonly person: PersonId
}

export interface ArchiveTeam {
  readonly kind: 'team.archive'
  readonly team: TeamId
  readonly archived: boolean
}

/** For good, once it has been archived for long enough. */
export interface DeleteTeam {
  readonly kind: 'team.delete'
  readonly team: TeamId
}

export interface CreateLevel {
  readonly kind: 'level.create'
  readonly level: LevelId
  readonly name: string
  readonly note: string
  readonly actions: ActionSet
}

export interface ChangeLevel {
  readonly kind: 'level.change'
  readonly level: LevelId
  readonly name?: string | undefined
  readonly note?: string | undefined
  readonly actions?: ActionSet | undefined
}

export interface DeleteLevel {
  readonly kind: 'level.delete'
  readonly level: LevelId
}

export interface ChangeWorkspace {
  readonly kind: 'workspace.change'
  readonly name?: string | undefined
  readonly timeZone?: string | undefined
  readonly guestCeiling?: ActionSet | undefined
  readonly allowsPublishing?: boolean | undefined
  readonly defaultRole?: RoleId | undefined
  readonly picture?: PictureId | null | undefined
  readonly memberDomains?: readonly string[] | undefined
  readonly guestDomains?: readonly string[] | undefined
  readonly invitationDays?: number | undefined
  readonly houseRules?: string | undefined
  readonly secondFactorFor?: readonly RoleId[] | undefined
  readonly signInDays?: number | undefined
  readonly idleHours?: number | undefined
}

export interface EndPerson {
  readonly kind: 'person.end'
  readonly person: PersonId
  readonly until: Instant | null
}

export interface DescribePerson {
  readonly kind: 'person.describe'
  readonly person: PersonId
  readonly name?: string | undefined
  readonly handle?: HandleId | null | undefined
  readonly title?: string | undefined
  readonly department?: string | undefined
  readonly country?: string | undefined
  readonly picture?: PictureId | null | undefined
}

/** Names whom a guest turns to. */
export interface ChangeContact {
  readonly kind: 'person.contact'
  readonly person: PersonId
  readonly contact: PersonId
}

export interface RemovePerson {
  readonly kind: 'person.remove'
  readonly person: PersonId
  /** Whom the guests turn to who turned to this person; the author if nobody is named. */
  readonly contact: PersonId | null
}

/** Makes a member a guest, or a guest a member. */
export interface TurnPerson {
  readonly kind: 'person.turn'
  readonly person: PersonId
  readonly as: Person['kind']
  readonly holding: HoldingId
  /** The private folder that a new member gets, with its grant. */
  readonly folder: NodeId
  readonly grant: GrantId
  /** Who takes over the private folder of a member that becomes a guest; without one it goes to the bin. */
  readonly taker: PersonId | null
}

export interface CreateChannel {
  readonly kind: 'channel.create'
  readonly channel: ChannelId
  readonly team: TeamId
  readonly name: string
  readonly note: string
  readonly only: readonly Principal[] | null
}

export interface ChangeChannel {
  readonly kind: 'channel.change'
  readonly channel: ChannelId
  readonly name?: string | undefined
  readonly note?: string | undefined
  readonly only?: readonly Principal[] | null | undefined
  readonly archived?: boolean | undefined
}
