import type { NodeId, PersonId, TeamId } from '../base/ids.ts'
import { isSame } from '../base/same.ts'
import { partsOf, type Principal } from '../rules/principal.ts'
import type { RecordChange } from '../state/state.ts'

/** What others of the same change set go along with. */
export interface Leading {
  readonly count: number
  readonly people: ReadonlySet<PersonId>
  /** Who left, or became a guest or a member. */
  readonly leavers: ReadonlySet<PersonId>
  /** Who came into which team, or asks anew. */
  readonly joined: ReadonlySet<string>
  /** Who was given something by name, and where. */
  readonly opened: ReadonlySet<string>
  /** Who was given a role. */
  readonly given: ReadonlySet<PersonId>
  readonly hasTeam: boolean
  /** Teams that are no more. */
  readonly goneTeams: ReadonlySet<TeamId>
  /** Places that are no more. */
  readonly gone: ReadonlySet<NodeId>
  readonly folders: ReadonlySet<NodeId>
  readonly breaks: ReadonlySet<NodeId>
}

export function leadingIn(changes: readonly RecordChange[]): Leading {
  const of = <T extends RecordChange['table']>(table: T) =>
    changes.filter(change => change.table === table) as Extract<RecordChange, { table: T }>[]
  const persons = of('persons')
  const nodes = of('nodes')
  const made = [...of('memberships'), ...of('requests')].filter(change => change.before === null)
  return {
    count: changes.length,
    people: new Set(persons.map(change => change.id)),
    leavers: new Set(persons.filter(isTurned).map(change => change.id)),
    joined: new Set(made.map(change => joinKey(change.after))),
    opened: new Set(
      of('grants').flatMap(change =>
        change.before === null ? [`${change.after?.principal ?? ''} ${change.after?.node ?? ''}`] : [],
      ),
    ),
    given: new Set(
      of('holdings').flatMap(({ before, after }) =>
        before === null && after !== null ? [after.person] : [],
      ),
    ),
    hasTeam: of('teams').length > 0,
    goneTeams: new Set(of('teams').flatMap(change => (change.after === null ? [change.id] : []))),
    gone: new Set(nodes.filter(change => change.after === null).map(change => change.id)),
    folders: new Set(nodes.filter(change => homeIn(change) === 'person').map(change => change.id)),
    breaks: new Set(nodes.filter(isBreak).map(change => change.id)),
  }
}

const isBreak = ({ before, after }: NodeChange): boolean =>
  before !== null && !isSame(before.broken, after?.broken)

const joinKey = (row: { readonly team?: TeamId; readonly person?: PersonId } | null): string =>
  `${row?.team ?? ''} ${row?.person ?? ''}`

const openedKey = (row: { readonly person?: PersonId; readonly node?: NodeId } | null): string =>
  `person:${row?.person ?? ''} ${row?.node ?? ''}`

export const isTurned = ({ before, after }: Extract<RecordChange, { table: 'persons' }>): boolean =>
  before !== null && after !== null && (before.kind !== after.kind || after.status === 'removed')

/** Whether a record only goes along with what others of its change set tell. */
export const goesAlong = (change: RecordChange, leading: Leading): boolean =>
  (along[change.table] as ((change: RecordChange, leading: Leading) => boolean) | undefined)?.(
    change,
    leading,
  ) === true

type Along = {
  readonly [T in RecordChange['table']]?: (
    change: Extract<RecordChange, { table: T }>,
    leading: Leading,
  ) => boolean
}

const along: Along = {
  holdings: (change, { people, goneTeams }) =>
    people.has(rowIn(change)?.person as PersonId) ||
    (change.after === null && goneTeams.has(scopeTeam(change))),
  invitations: (change, { people }) => people.has(rowIn(change)?.person as PersonId),
  handles: (change, { people }) => people.has(rowIn(change)?.person as PersonId),
  requests: (change, { joined, leavers, goneTeams }) =>
    change.after === null &&
    (leavers.has(rowIn(change)?.person as PersonId) ||
      goneTeams.has(rowIn(change)?.team as TeamId) ||
      joined.has(joinKey(rowIn(change)))),
  roleRequests: (change, { leavers, given }) =>
    change.after === null &&
    (leavers.has(rowIn(change)?.person as PersonId) || given.has(rowIn(change)?.person as PersonId)),
  accessRequests: (change, { leavers, opened }) =>
    change.after === null &&
    (leavers.has(rowIn(change)?.person as PersonId) || opened.has(openedKey(rowIn(change)))),
  handovers: (change, { leavers, given }) =>
    change.after === null &&
    [change.before?.from, change.before?.to].some(
      each => each !== undefined && (leavers.has(each) || given.has(each)),
    ),
  joinLinks: (change, { people }) => change.before?.used !== change.after?.used && people.size > 0,
  memberships: (change, { leavers, goneTeams }) =>
    change.after === null &&
    (leavers.has(rowIn(change)?.person as PersonId) || goneTeams.has(rowIn(change)?.team as TeamId)),
  channels: (change, { goneTeams }) => goneTeams.has(rowIn(change)?.team as TeamId),
  nodes: (change, leading) =>
    isMadeOrUnmade(change)
      ? isMadeAlong(change, leading)
      : homeIn(change) === 'person' && leading.leavers.size > 0,
  columns: (change, { gone }) => gone.has(rowIn(change)?.board as NodeId),
  limits: (change, leading) => isEntryAlong(change, leading),
  grants: (change, leading) => {
    const node = rowIn(change)?.node as NodeId
    const isCopy = (change.before ?? change.after)?.copiedFrom !== null
    const isPrivate = leading.folders.has(node) && leading.count > 1
    return isPrivate || (isCopy && leading.breaks.has(node)) || isEntryAlong(change, leading)
  },
}

const isMadeAlong = (change: NodeChange, { hasTeam, gone, count }: Leading): boolean =>
  (hasTeam && homeIn(change) === 'team') ||
  (homeIn(change) === 'person' && count > 1) ||
  (change.after === null && gone.has(rowIn(change)?.parent as NodeId))

/** What was set at a place that was deleted, or named somebody who left. */
function isEntryAlong(change: RecordChange, { gone, leavers, goneTeams }: Leading): boolean {
  const { node, principal = 'anyone' } = rowIn(change) ?? {}
  const { person, team } = subjectIn(principal)
  const isDeleted = change.after === null && gone.has(node as NodeId)
  return (
    isDeleted ||
    (person !== undefined && leavers.has(person)) ||
    (change.after === null && team !== undefined && goneTeams.has(team))
  )
}

type NodeChange = Extract<RecordChange, { table: 'nodes' }>

const homeIn = ({ before, after }: NodeChange) => (before ?? after)?.home?.of

const isMadeOrUnmade = ({ before, after }: RecordChange) => before === null || after === null

export const rowIn = ({ before, after }: RecordChange) =>
  (after ?? before) as {
    readonly person?: PersonId
    readonly team?: TeamId
    readonly node?: NodeId
    readonly parent?: NodeId | null
    readonly board?: NodeId
    readonly principal?: Principal
    readonly to?: PersonId
    readonly through?: PersonId | null
  } | null

/** The person or team that a principal names. */
export function subjectIn(principal: Principal): { person?: PersonId; team?: TeamId } {
  const parts = partsOf(principal)
  if (parts.kind === 'person') return { person: parts.person }
  return parts.kind === 'team' || parts.kind === 'leads' ? { team: parts.team } : {}
}

const scopeTeam = ({ before }: Extract<RecordChange, { table: 'holdings' }>) =>
  (before?.scope.over === 'team' ? before.scope.team : '') as TeamId
