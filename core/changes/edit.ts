import type { ChangeBoardView, CreateBoardView, DeleteBoardView } from './edits/board-view.ts'
import type { BreakInheritance, RestoreInheritance } from './edits/break.ts'
import type { ChangeChannel, CreateChannel } from './edits/channel.ts'
import type { ChangeColumn, CreateColumn, DeleteColumn } from './edits/column.ts'
import type { ChangeContact } from './edits/contact.ts'
import type { DeleteNode } from './edits/delete.ts'
import type { DuplicateNode } from './edits/duplicate.ts'
import type { AddGrant, ChangeGrant, EndGrant } from './edits/grant.ts'
import type { AnswerHandover, OfferHandover, WithdrawHandover } from './edits/handover.ts'
import type { AcceptInvitation, RenewInvitation, WithdrawInvitation } from './edits/invitation.ts'
import type { InvitePerson } from './edits/invite.ts'
import type { ChangeJoinLink, CreateJoinLink, UseJoinLink, WithdrawJoinLink } from './edits/join-link.ts'
import type { ChangeLevel, CreateLevel, DeleteLevel } from './edits/level.ts'
import type { AddLimit, ChangeLimit, EndLimit } from './edits/limit.ts'
import type { BeginViewing } from './edits/viewing-session.ts'
import type { AddMember, ChangeMember, RemoveMember } from './edits/member.ts'
import type { MoveNode } from './edits/move.ts'
import type { SetNodeState } from './edits/node-state.ts'
import type { CreateHome, CreateNode, DescribeNode, OrderNode } from './edits/node.ts'
import type { RemovePerson } from './edits/offboarding.ts'
import type { ChangeInvitation } from './edits/offered.ts'
import type { DescribePerson, EndPerson, ReactivatePerson, SuspendPerson } from './edits/person.ts'
import type { RecoverAccess } from './edits/recover.ts'
import type { AcceptRequest, DeclineRequest, MakeRequest, WithdrawRequest } from './edits/request.ts'
import type { ChangeRole, CreateRole, DeleteRole } from './edits/role-made.ts'
import type { AssignRole, UnassignRole } from './edits/role.ts'
import type { ChangeSeats } from './edits/seats.ts'
import type { ChangeSection, CreateSection, DeleteSection } from './edits/section.ts'
import type { DeleteTeam } from './edits/team-delete.ts'
import type { ArchiveTeam, ChangeTeam, CreateTeam } from './edits/team.ts'
import type { ConvertPerson } from './edits/convert.ts'
import type { UndoChangeSet } from './edits/undo.ts'
import type { BeginWatch, EndWatch } from './edits/watch.ts'
import type { SetWeb } from './edits/web.ts'
import type { ChangeWelcomeSet, CreateWelcomeSet, DeleteWelcomeSet } from './edits/welcome-set.ts'
import type { ChangeWorkspace } from './edits/workspace.ts'

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
  | RemoveMember
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
  | ReactivatePerson
  | EndPerson
  | DescribePerson
  | AssignRole
  | UnassignRole
  | UndoChangeSet
  | SetWeb
  | OrderNode
  | ArchiveTeam
  | DeleteTeam
  | CreateLevel
  | ChangeLevel
  | DeleteLevel
  | ChangeWorkspace
  | DeleteNode
  | DuplicateNode
  | RemovePerson
  | ConvertPerson
  | RecoverAccess
  | CreateRole
  | ChangeRole
  | DeleteRole
  | ChangeSeats
  | CreateColumn
  | ChangeColumn
  | DeleteColumn
  | CreateSection
  | ChangeSection
  | DeleteSection
  | CreateBoardView
  | ChangeBoardView
  | DeleteBoardView
  | CreateChannel
  | ChangeChannel
  | ChangeInvitation
  | ChangeContact
  | MakeRequest
  | WithdrawRequest
  | AcceptRequest
  | DeclineRequest
  | CreateWelcomeSet
  | ChangeWelcomeSet
  | DeleteWelcomeSet
  | CreateJoinLink
  | ChangeJoinLink
  | WithdrawJoinLink
  | UseJoinLink
  | OfferHandover
  | WithdrawHandover
  | AnswerHandover
  | BeginViewing
  | BeginWatch
  | EndWatch

export type EditKind = Edit['kind']
