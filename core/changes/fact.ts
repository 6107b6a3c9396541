import type { NodeId, PersonId, TeamId } from '../base/ids.ts'
import { isSame } from '../base/same.ts'
import type { RecordChange } from '../state/state.ts'
import { goesAlong, leadingIn, rowIn, subjectIn } from './along.ts'

/** What kind of thing was done: what a history is looked through by. */
export const acts = [
  'sharing',
  'limits',
  'inheritance',
  'places',
  'teams',
  'people',
  'roles',
  'looking',
  'workspace',
] as const
export type Act = (typeof acts)[number]

/** One thing that a change set did, and whom and what it is about: who may read it hangs on these. */
export interface Fact {
  readonly act: Act
  readonly change: RecordChange
  readonly place: NodeId | null
  readonly person: PersonId | null
  readonly team: TeamId | null
}

/**
 * What a change set did, one fact a record. Records that only go along with another are left out: the
 * copies of a break, what comes with an invitation or a team, a member's private folder, what hung on
 * somebody who left, what was in a place that was deleted. Costs what the changes cost.
 */
export function factsOf(changes: readonly RecordChange[]): Fact[] {
  const leading = leadingIn(changes)
  const facts = changes.filter(change => !goesAlong(change, leading)).flatMap(factOf)
  return facts.length === 0 ? changes.slice(0, 1).flatMap(factOf) : facts
}

function factOf(change: RecordChange): Fact[] {
  const about = aboutOf(change)
  if (about === undefined) return []
  const { place = null, person = null, team = null } = about
  return [{ change, act: about.act, place, person, team }]
}

interface About {
  readonly act: Act
  readonly place?: NodeId | undefined
  readonly person?: PersonId | undefined
  readonly team?: TeamId | undefined
}

/** What a record is about; nothing to tell of for a built-in role, or for what somebody wants to be told. */
function aboutOf(change: RecordChange): About | undefined {
  const { node, board, person, team, principal } = rowIn(change) ?? {}
  switch (change.table) {
    case 'accessRequests':
      return { act: 'sharing', place: node, person }
    case 'watches':
      return undefined
    case 'grants':
    case 'limits': {
      const act = change.table === 'grants' ? 'sharing' : 'limits'
      return { act, place: node, ...(principal === undefined ? {} : subjectIn(principal)) }
    }
    case 'nodes': {
      const isBreak = change.before !== null && !isSame(change.before.broken, change.after?.broken)
      return { act: isBreak ? 'inheritance' : 'places', place: change.id }
    }
    case 'columns':
      return { act: 'places', place: board }
    case 'teams':
      return { act: 'teams', team: change.id }
    case 'memberships':
    case 'requests':
    case 'channels':
      return { act: 'teams', team, person }
    case 'persons':
      return { act: 'people', person: change.id }
    case 'holdings':
    case 'roleRequests':
    case 'handovers':
    case 'looks':
    case 'roles':
      return aboutRoles(change)
    case 'handles':
    case 'invitations':
      return { act: 'people', person }
    case 'workspaces':
    case 'levels':
    case 'welcomeSets':
    case 'joinLinks':
      return { act: 'workspace' }
  }
}

/** What is about roles, and looking by the privilege that one gives. */
function aboutRoles(change: RecordChange): About | undefined {
  const { person, to, through } = rowIn(change) ?? {}
  if (change.table === 'looks') return { act: 'looking', person: through ?? undefined }
  if (change.table === 'handovers') return { act: 'roles', person: to }
  const isBuiltIn = change.table === 'roles' && (change.after ?? change.before)?.builtIn === true
  return isBuiltIn ? undefined : { act: 'roles', person }
}
