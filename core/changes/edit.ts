import type {
  AccountId,
  GrantId,
  HoldingId,
  InvitationId,
  LevelId,
  LimitId,
  MembershipId,
  NodeId,
  PersonId,
  RoleId,
  TeamId,
} from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import type { Scope, Team } from '../people/person.ts'
import type { ActionSet } from '../levels/action.ts'
import type { Gives } from '../rules/entry.ts'
import type { Principal } from '../rules/principal.ts'
import type { RecordChange } from '../state/state.ts'
import type { NodeKind } from '../tree/node.ts'

/**
 * What an author intends, one act each. A change set is a list of these. Ids of new things are made
 * outside the core and come with the edit; an edit carries no state of its own making.
 */
export type Edit =
  | InvitePerson
  | WithdrawInvitation
  | RenewInvitation
  | AcceptInvitation
  | CreateTeam
  | ChangeTeam
  | AddMember
  | ChangeMember
  | TakeMember
  | CreateHome
  | CreateNode
  | DescribeNode
  | AddGrant
  | ChangeGrant
  | EndGrant
  | AddLimit
  | ChangeLimit
  | EndLimit
  | BreakInheritance
  | RestoreInheritance
  | MoveNode
  | SetNodeState
  | SuspendPerson
  | ResumePerson
  | EndPerson
  | DescribePerson
  | GiveRole
  | TakeRole
  | UndoChangeSet
  | SetWeb
  | OrderNode
  | ArchiveTeam
  | CreateLevel
  | ChangeLevel
  | DeleteLevel
  | ChangeWorkspace

export type EditKind = Edit['kind']

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

export interface CreateHome {
  readonly kind: 'home.create'
  readonly node: NodeId
  readonly name: string
}

export interface CreateNode {
  readonly kind: 'node.create'
  readonly node: NodeId
  readonly parent: NodeId
  readonly as: NodeKind
  readonly name: string
}

export interface DescribeNode {
  readonly kind: 'node.describe'
  readonly node: NodeId
  readonly name?: string | undefined
  readonly note?: string | undefined
}

export interface AddGrant {
  readonly kind: 'grant.add'
  readonly grant: GrantId
  readonly node: NodeId
  readonly principal: Principal
  readonly gives: Gives
  readonly from: Instant | null
  readonly until: Instant | null
}

export interface ChangeGrant {
  readonly kind: 'grant.change'
  readonly grant: GrantId
  readonly gives?: Gives | undefined
  readonly until?: Instant | null | undefined
}

export interface EndGrant {
  readonly kind: 'grant.end'
  readonly grant: GrantId
}

export interface AddLimit {
  readonly kind: 'limit.add'
  readonly limit: LimitId
  readonly node: NodeId
  readonly principal: Principal
  readonly allows: ActionSet
  readonly sparesStewards: boolean
  readonly from: Instant | null
  readonly until: Instant | null
}

export interface ChangeLimit {
  readonly kind: 'limit.change'
  readonly limit: LimitId
  readonly allows?: ActionSet | undefined
  readonly sparesStewards?: boolean | undefined
  readonly until?: Instant | null | undefined
}

export interface EndLimit {
  readonly kind: 'limit.end'
  readonly limit: LimitId
}

export interface BreakInheritance {
  readonly kind: 'node.break'
  readonly node: NodeId
  readonly mode: 'keep' | 'empty'
  /** The ids of the grants that it makes begin with this. */
  readonly copies: string
}

export interface RestoreInheritance {
  readonly kind: 'node.restore'
  readonly node: NodeId
  /** Which of the node's own grants go: the copies that the break made, none, or all. */
  readonly drop: 'copies' | 'none' | 'own'
}

export interface MoveNode {
  readonly kind: 'node.move'
  readonly node: NodeId
  readonly parent: NodeId
}

export interface SetNodeState {
  readonly kind: 'node.state'
  readonly node: NodeId
  readonly archived?: boolean | undefined
  readonly binned?: boolean | undefined
  readonly draft?: boolean | undefined
}

export interface SuspendPerson {
  readonly kind: 'person.suspend'
  readonly person: PersonId
}

export interface ResumePerson {
  readonly kind: 'person.resume'
  readonly person: PersonId
}

/** Takes back an earlier change set, as far as what it did still stands. */
export interface UndoChangeSet {
  readonly kind: 'undo'
  /** The revision that it made, and what it did to each record. */
  readonly revision: number
  readonly changes: readonly RecordChange[]
  /** Places with something in them that is not part of the state, such as text: these are not unmade. */
  readonly written: readonly NodeId[]
}

export interface SetWeb {
  readonly kind: 'node.web'
  readonly node: NodeId
  readonly web: 'published' | 'excluded' | null
}

export interface OrderNode {
  readonly kind: 'node.order'
  readonly node: NodeId
  /** Place among its siblings: between two of them lies always another number. */
  readonly order: number
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
