import type {
  AccountId,
  ChannelId,
  GrantId,
  HoldingId,
  InvitationId,
  LevelId,
  MembershipId,
  NodeId,
  PersonId,
  RoleId,
  TeamId,
} from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'
import type { ActionSet } from '../../levels/action.ts'
import type { Privilege } from '../../levels/privilege.ts'
import type { Person, Scope, Team } from '../../people/person.ts'
import type { Principal } from '../../rules/principal.ts'

/** What can be done about people, teams, channels, roles and the workspace itself. */

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
  /** When the person's time in the workspace ends by itself. */
  readonly until: Instant | null
  /** When the link dies. */
  readonly linkUntil: Instant
  readonly message: string
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
  readonly title?: string | undefined
}

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

export interface RemovePerson {
  readonly kind: 'person.remove'
  readonly person: PersonId
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

export interface CreateRole {
  readonly kind: 'role.create'
  readonly role: RoleId
  readonly name: string
  readonly note: string
  readonly rung: number
  readonly privileges: readonly Privilege[]
  readonly callable: boolean
  readonly free: boolean
}

export interface ChangeRole {
  readonly kind: 'role.change'
  readonly role: RoleId
  readonly name?: string | undefined
  readonly note?: string | undefined
  readonly rung?: number | undefined
  readonly privileges?: readonly Privilege[] | undefined
  readonly callable?: boolean | undefined
  readonly free?: boolean | undefined
}

export interface DeleteRole {
  readonly kind: 'role.delete'
  readonly role: RoleId
}

export interface ChangeSeats {
  readonly kind: 'seats.change'
  readonly seats?: number | null | undefined
  readonly suspendedHoldSeats?: boolean | undefined
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
