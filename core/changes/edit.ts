import type {
  AcceptInvitation,
  AddMember,
  ArchiveTeam,
  ChangeChannel,
  ChangeLevel,
  ChangeMember,
  ChangeRole,
  ChangeSeats,
  ChangeTeam,
  ChangeWorkspace,
  CreateChannel,
  CreateLevel,
  CreateRole,
  CreateTeam,
  DeleteLevel,
  DeleteRole,
  DescribePerson,
  EndPerson,
  GiveRole,
  InvitePerson,
  RemovePerson,
  RenewInvitation,
  ResumePerson,
  SuspendPerson,
  TakeMember,
  TakeRole,
  TurnPerson,
  WithdrawInvitation,
} from './intents/people.ts'
import type {
  AddGrant,
  AddLimit,
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
  MoveNode,
  OrderNode,
  RecoverAccess,
  RestoreInheritance,
  SetNodeState,
  SetWeb,
  UndoChangeSet,
} from './intents/places.ts'

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

export type EditKind = Edit['kind']
