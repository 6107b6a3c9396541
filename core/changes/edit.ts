import type {
  AcceptInvitation,
  AddMember,
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
  RemovePerson,
  RenewInvitation,
  ResumePerson,
  SuspendPerson,
  TakeMember,
  TurnPerson,
  WithdrawInvitation,
} from './intents/people.ts'
import type {
  AddGrant,
  AddLimit,
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
  UndoChangeSet,
} from './intents/places.ts'
import type { AcceptRequest, DeclineRequest, MakeRequest, WithdrawRequest } from './intents/requests.ts'
import type {
  AnswerHandover,
  BeginLook,
  ChangeRole,
  ChangeSeats,
  CreateRole,
  DeleteRole,
  GiveRole,
  OfferHandover,
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
  | BeginLook
  | BeginWatch
  | EndWatch

export type EditKind = Edit['kind']
