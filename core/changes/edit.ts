import type {
  AcceptInvitation,
  AddMember,
  AnswerRequest,
  ArchiveTeam,
  ChangeChannel,
  ChangeContact,
  ChangeInvitation,
  ChangeLevel,
  ChangeMember,
  ChangeTeam,
  ChangeWorkspace,
  CreateChannel,
  CreateLevel,
  CreateTeam,
  DeleteLevel,
  DeleteTeam,
  DescribePerson,
  EndPerson,
  InvitePerson,
  MakeRequest,
  RemovePerson,
  RenewInvitation,
  ResumePerson,
  SuspendPerson,
  TakeMember,
  TurnPerson,
  WithdrawInvitation,
  WithdrawRequest,
} from './intents/people.ts'
import type {
  AddGrant,
  AddLimit,
  AnswerAccessRequest,
  AskForAccess,
  BeginWatch,
  BreakInheritance,
  ChangeColumn,
  ChangeGrant,
  ChangeLimit,
  CreateColumn,
  CreateHome,
  CreateNode,
  DeleteColumn,
  DeleteNode,
  DescribeNode,
  DuplicateNode,
  EndGrant,
  EndLimit,
  EndWatch,
  MoveNode,
  OrderNode,
  RecoverAccess,
  RestoreInheritance,
  SetNodeState,
  SetWeb,
  TakeBackAccessRequest,
  UndoChangeSet,
} from './intents/places.ts'
import type {
  AnswerHandover,
  AnswerRoleRequest,
  AskForRole,
  BeginLook,
  ChangeRole,
  ChangeSeats,
  CreateRole,
  DeleteRole,
  GiveRole,
  OfferHandover,
  TakeBackRoleRequest,
  TakeRole,
  WithdrawHandover,
} from './intents/roles.ts'
import type {
  ChangeJoinLink,
  ChangeWelcomeSet,
  CreateJoinLink,
  CreateWelcomeSet,
  DeleteWelcomeSet,
  UseJoinLink,
  WithdrawJoinLink,
} from './intents/ways-in.ts'

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
  | DeleteTeam
  | CreateLevel
  | ChangeLevel
  | DeleteLevel
  | ChangeWorkspace
  | DeleteNode
  | DuplicateNode
  | RemovePerson
  | TurnPerson
  | RecoverAccess
  | CreateRole
  | ChangeRole
  | DeleteRole
  | ChangeSeats
  | CreateColumn
  | ChangeColumn
  | DeleteColumn
  | CreateChannel
  | ChangeChannel
  | ChangeInvitation
  | ChangeContact
  | MakeRequest
  | WithdrawRequest
  | AnswerRequest
  | CreateWelcomeSet
  | ChangeWelcomeSet
  | DeleteWelcomeSet
  | CreateJoinLink
  | ChangeJoinLink
  | WithdrawJoinLink
  | UseJoinLink
  | AskForRole
  | TakeBackRoleRequest
  | AnswerRoleRequest
  | OfferHandover
  | WithdrawHandover
  | AnswerHandover
  | BeginLook
  | AskForAccess
  | TakeBackAccessRequest
  | AnswerAccessRequest
  | BeginWatch
  | EndWatch

export type EditKind = Edit['kind']
