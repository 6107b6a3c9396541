import type { NodeId, PersonId, TeamId } from '../base/ids.ts'
import { isSame } from '../base/same.ts'
import { partsOf, type Principal } from '../rules/principal.ts'
import type { RecordChange } from '../state/state.ts'

/** What kind of thing was done: what a history is looked through by. */
export const acts = ['sharing', 'limits', 'inheritance', 'places', 'teams', 'people', 'workspace'] as const
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
 * copies of a break, what comes with an invitation or a team, a member's private folder.
 */
export function factsOf(changes: readonly RecordChange[]): Fact[] {
  const along = new Set(changes.flatMap(change => goingAlong(change, changes)))
  const facts = changes.filter(change => !along.has(change)).flatMap(factOf)
  return facts.length === 0 ? changes.slice(0, 1).flatMap(factOf) : facts
}

function goingAlong(change: RecordChange, changes: readonly RecordChange[]): RecordChange[] {
  const others = changes.filter(each => each !== change)
  switch (change.table) {
    case 'persons':
      return others.filter(each => isOffered(each) && rowIn(each)?.person === change.id)
    case 'teams':
      return others.filter(each => each.table === 'nodes' && isMadeOrUnmade(each) && homeIn(each) === 'team')
    case 'nodes':
      return alongWithNode(change, others)
    default:
      return []
  }
}

function alongWithNode(change: NodeChange, others: readonly RecordChange[]): RecordChange[] {
  const here = others.filter(each => each.table === 'grants' && rowIn(each)?.node === change.id)
  if (isMadeOrUnmade(change)) return homeIn(change) === 'person' && others.length > 0 ? [change, ...here] : []
  return isSame(change.before?.broken, change.after?.broken)
    ? []
    : here.filter(each => each.table === 'grants' && (each.before ?? each.after)?.copiedFrom !== null)
}

type NodeChange = Extract<RecordChange, { table: 'nodes' }>

const homeIn = ({ before, after }: NodeChange) => (after ?? before)?.home?.of

const isMadeOrUnmade = ({ before, after }: RecordChange) => before === null || after === null

const isOffered = ({ table }: RecordChange) => table === 'holdings' || table === 'invitations'

const rowIn = ({ before, after }: RecordChange) =>
  (after ?? before) as {
    readonly person?: PersonId
    readonly team?: TeamId
    readonly node?: NodeId
    readonly principal?: Principal
  } | null

function factOf(change: RecordChange): Fact[] {
  const about = { change, place: null, person: null, team: null }
  switch (change.table) {
    case 'grants':
    case 'limits':
      return [{ ...about, ...entryIn(change) }]
    case 'nodes': {
      const isBreak = change.before !== null && !isSame(change.before.broken, change.after?.broken)
      return [{ ...about, act: isBreak ? 'inheritance' : 'places', place: change.id }]
    }
    case 'memberships': {
      const { person = null, team = null } = rowIn(change) ?? {}
      return [{ ...about, act: 'teams', person, team }]
    }
    case 'teams':
      return [{ ...about, act: 'teams', team: change.id }]
    case 'persons':
      return [{ ...about, act: 'people', person: change.id }]
    case 'holdings':
    case 'invitations':
      return [{ ...about, act: 'people', person: rowIn(change)?.person ?? null }]
    case 'workspaces':
    case 'levels':
      return [{ ...about, act: 'workspace' }]
    case 'roles':
      return []
  }
}

function entryIn(change: Extract<RecordChange, { table: 'grants' | 'limits' }>) {
  const { node = null, principal = 'anyone' } = rowIn(change) ?? {}
  return {
    act: change.table === 'grants' ? 'sharing' : 'limits',
    place: node,
    ...subjectIn(principal),
  } as const
}

function subjectIn(principal: Principal): { person?: PersonId; team?: TeamId } {
  const parts = partsOf(principal)
  if (parts.kind === 'person') return { person: parts.person }
  return parts.kind === 'team' || parts.kind === 'leads' ? { team: parts.team } : {}
}
