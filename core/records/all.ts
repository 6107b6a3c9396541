import type { TableName } from '../state/kinds.ts'
import { stateOf } from '../state/state.ts'
import { boardViews } from './board-views.ts'
import { channels } from './channels.ts'
import { columns } from './columns.ts'
import { grants } from './grants.ts'
import { handles } from './handles.ts'
import { handovers } from './handovers.ts'
import { holdings } from './holdings.ts'
import { invitations } from './invitations.ts'
import { joinLinks } from './join-links.ts'
import type { RecordKind } from './kind.ts'
import { levels } from './levels.ts'
import { limits } from './limits.ts'
import { viewingSessions } from './viewing-sessions.ts'
import { memberships } from './memberships.ts'
import { nodes } from './nodes.ts'
import { persons } from './persons.ts'
import { requests } from './requests.ts'
import { roles } from './roles.ts'
import { sections } from './sections.ts'
import { teams } from './teams.ts'
import { watches } from './watches.ts'
import { welcomeSets } from './welcome-sets.ts'
import { workspaces } from './workspaces.ts'

/**
 * Every kind of record, from which all that goes through kinds derives: the state, the columns of the database, undo,
 * deletion, dates, rights, history. In an order in which rows can be written: what is named comes before what names it.
 */
export const records: { readonly [T in TableName]: RecordKind<T> } = {
  workspaces,
  levels,
  roles,
  persons,
  handles,
  holdings,
  welcomeSets,
  joinLinks,
  invitations,
  teams,
  memberships,
  requests,
  handovers,
  viewingSessions,
  channels,
  nodes,
  watches,
  columns,
  sections,
  boardViews,
  grants,
  limits,
}

export const tableNames = Object.keys(records) as readonly TableName[]

/** A workspace before its first day. */
export const emptyState = stateOf(records)
