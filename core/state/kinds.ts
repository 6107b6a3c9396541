import type { Handover, ViewingSession, Watch } from '../people/asking.ts'
import type { Handle, Holding, Invitation, Membership, Person, Team } from '../people/person.ts'
import type { RequestFor } from '../people/request.ts'
import type { Role } from '../people/role.ts'
import type { OwnLevel } from '../levels/level.ts'
import type { Channel } from '../rules/channel.ts'
import type { BoardView, Section } from '../rules/board.ts'
import type { BoardColumn } from '../rules/column.ts'
import type { Grant, Limit } from '../rules/access-entry.ts'
import type { JoinLink, WelcomeSet } from '../rules/offer.ts'
import type { Workspace } from '../rules/workspace.ts'
import type { ContentNode } from '../tree/node.ts'

/** What a record of one kind is, and by which indexes it is found. */
interface Kind<Row, Index extends string = never> {
  readonly row: Row
  readonly index: Index
}

/** Every kind of record, by its table. What else there is to say of each says its descriptor in core/records. */
export interface Kinds {
  workspaces: Kind<Workspace>
  levels: Kind<OwnLevel>
  roles: Kind<Role>
  persons: Kind<Person, 'account' | 'mail'>
  handles: Kind<Handle, 'person'>
  holdings: Kind<Holding, 'person' | 'role'>
  welcomeSets: Kind<WelcomeSet>
  joinLinks: Kind<JoinLink>
  invitations: Kind<Invitation, 'person'>
  teams: Kind<Team, 'joining'>
  memberships: Kind<Membership, 'person' | 'team'>
  requests: Kind<RequestFor, 'person' | 'wanted'>
  handovers: Kind<Handover>
  viewingSessions: Kind<ViewingSession, 'through' | 'by'>
  channels: Kind<Channel, 'team'>
  nodes: Kind<ContentNode, 'parent' | 'home' | 'bin'>
  watches: Kind<Watch, 'person' | 'node'>
  columns: Kind<BoardColumn, 'board'>
  sections: Kind<Section, 'board'>
  boardViews: Kind<BoardView, 'board'>
  grants: Kind<Grant, 'node' | 'principal'>
  limits: Kind<Limit, 'node' | 'principal'>
}

export type TableName = keyof Kinds
export type Rows = { [T in TableName]: Kinds[T]['row'] }
export type IndexOf<T extends TableName> = Kinds[T]['index']
