import { type EditRequest, editSchemas } from '#contract/edit-requests.ts'
import type { Named } from '#contract/pieces.ts'
import { isIn } from '#core/access/channels.ts'
import { checkColumn } from '#core/access/columns.ts'
import { powersOf } from '#core/access/powers.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { NodeId, PersonId, RoleId } from '#core/base/ids.ts'
import { knowsTeam, leadsTeam } from '#core/changes/context.ts'
import type { Refusal, Unknown } from '#core/changes/refusal.ts'
import type { Holding } from '#core/people/person.ts'
import { partsOf, personPrincipal, type Principal } from '#core/rules/principal.ts'
import type { Rows, TableName } from '#core/state/kinds.ts'
import { rootOf, workspaceOf } from '#core/state/state.ts'
import { type Asker, asks, holdsAt, knowsPerson, maySee } from '../viewer/asker.ts'
import { managerOf } from '../viewer/managing.ts'

/**
 * What an edit names has to be there and known to the asker, whatever the edit would come to: what is hidden is refused
 * like what does not exist. What a request makes itself stands as `new:x` and is known. Which fields of an edit are ids,
 * and of what, its schema says.
 */
export function unknownIn(asker: Asker, edit: EditRequest): Refusal | undefined {
  for (const { names, id } of namesIn(editSchemas[edit.kind] as Schema, edit))
    if (!isNew(id) && !knows(asker, names, id)) return { code: 'unknown', what: called[names] }
  return undefined
}

export const knowsAll = (asker: Asker, edit: EditRequest): boolean => unknownIn(asker, edit) === undefined

const isNew = (id: string): boolean => id.includes('new:')

/** As much of a JSON Schema as says where ids stand. */
interface Schema {
  readonly names?: Names
  readonly properties?: Readonly<Record<string, Schema>>
  readonly items?: Schema
  readonly anyOf?: readonly Schema[]
}

type Names = Named | 'principal'

interface Name {
  readonly names: Names
  readonly id: string
}

/** Every id in a value that fits a schema. */
export function namesIn({ names, properties = {}, items, anyOf = [] }: Schema, value: unknown): Name[] {
  if (typeof value === 'string' && names !== undefined) return [{ names, id: value }]
  const within = anyOf.flatMap(each => namesIn(each, value))
  if (Array.isArray(value) && items !== undefined) within.push(...value.flatMap(each => namesIn(items, each)))
  else if (typeof value === 'object' && value !== null)
    for (const [field, inner] of Object.entries(value))
      within.push(...namesIn(properties[field] ?? {}, inner))
  return within
}

const called: Readonly<Record<Names, Unknown>> = {
  nodes: 'place',
  persons: 'person',
  teams: 'team',
  grants: 'grant',
  limits: 'limit',
  roles: 'role',
  holdings: 'role',
  levels: 'level',
  columns: 'column',
  sections: 'section',
  boardViews: 'view',
  channels: 'channel',
  requests: 'request',
  welcomeSets: 'welcome set',
  joinLinks: 'link',
  handovers: 'handover',
  watches: 'watch',
  principal: 'person',
  pictures: 'place',
  drafts: 'place',
  notifications: 'place',
}

/** A text becomes an id here, by what its schema says that it names: whether it is one, the state says. */
function knows(asker: Asker, names: Names, id: string): boolean {
  if (names === 'principal') return knowsPrincipal(asker, id as Principal)
  return (known[names] as Known<typeof names>)(asker, id)
}

/** The ids of a kind of thing: of the core, or the server's own. */
type IdOf<N extends Named> = N extends TableName ? Rows[N]['id'] : string
type Known<N extends Named> = (asker: Asker, id: IdOf<N>) => boolean

/** What was made for one person: what is done with it finds out whose it is, and refuses it to others like what is not there. */
const byItsUse = () => true

const known: { readonly [N in Named]: Known<N> } = {
  nodes: knowsNode,
  grants: (asker, id) => {
    const grant = rowOf(asker.snapshot.state.grants, id)
    if (grant === undefined) return false
    return grant.principal === personPrincipal(asker.person) || shares(asker, grant.node)
  },
  limits: (asker, id) => {
    const limit = rowOf(asker.snapshot.state.limits, id)
    return limit !== undefined && (shares(asker, limit.node) || recovers(asker, limit.node))
  },
  persons: (asker, id) => isThere(asker, id) && knowsPerson(asker, id),
  teams: (asker, id) => knowsTeam(asker.snapshot, asker.person, id),
  roles: knowsRole,
  holdings: (asker, id) => {
    const holding = rowOf(asker.snapshot.state.holdings, id)
    if (holding === undefined) return false
    return holding.person === asker.person || isKept(asker, holding) || looksAfterRoles(asker)
  },
  levels: (asker, id) => rowOf(asker.snapshot.state.levels, id) !== undefined,
  columns: (asker, id) => {
    const column = rowOf(asker.snapshot.state.columns, id)
    if (column === undefined) return false
    return checkColumn(asker.snapshot, asker.person, { at: column.board, column: column.id }) !== 'none'
  },
  sections: (asker, id) => {
    const section = rowOf(asker.snapshot.state.sections, id)
    return section !== undefined && maySee(asker, section.board)
  },
  boardViews: (asker, id) => {
    const view = rowOf(asker.snapshot.state.boardViews, id)
    return view !== undefined && maySee(asker, view.board)
  },
  channels: ({ snapshot, person, subject }, id) => {
    const channel = rowOf(snapshot.state.channels, id)
    if (channel === undefined || !knowsTeam(snapshot, person, channel.team)) return false
    return channel.only === null || isIn(subject, channel) || leadsTeam(snapshot, person, channel.team)
  },
  welcomeSets: (asker, id) => invites(asker) && rowOf(asker.snapshot.state.welcomeSets, id) !== undefined,
  requests: byItsUse,
  handovers: byItsUse,
  watches: byItsUse,
  pictures: byItsUse,
  drafts: byItsUse,
  notifications: byItsUse,
  joinLinks: (asker, id) => invites(asker) && rowOf(asker.snapshot.state.joinLinks, id) !== undefined,
}

/** What is in the bin, too, for whoever could bring it back; the root for whom its grants are. */
function knowsNode(asker: Asker, id: NodeId): boolean {
  if (id === rootOf(asker.snapshot.state).id) return asks(asker, 'security')
  if (rowOf(asker.snapshot.state.nodes, id) === undefined) return false
  return holdsAt(asker, id, 'see') || recovers(asker, id)
}

const recovers = (asker: Asker, node: NodeId): boolean =>
  node !== rootOf(asker.snapshot.state).id && asks(asker, 'recover access') && asks(asker, 'see the outline')

const shares = (asker: Asker, node: NodeId): boolean =>
  node === rootOf(asker.snapshot.state).id ? asks(asker, 'security') : holdsAt(asker, node, 'share')

function knowsPrincipal(asker: Asker, principal: Principal): boolean {
  const parts = partsOf(principal)
  if (parts.kind === 'person') return isThere(asker, parts.person) && knowsPerson(asker, parts.person)
  return !('team' in parts) || knowsTeam(asker.snapshot, asker.person, parts.team)
}

const isThere = ({ snapshot }: Asker, id: PersonId) => rowOf(snapshot.state.persons, id) !== undefined

/** The built-in ones, one's own and the one that everybody is given are no secret; the rest is for whom roles are shown. */
function knowsRole(asker: Asker, id: RoleId): boolean {
  const { state } = asker.snapshot
  const role = rowOf(state.roles, id)
  if (role === undefined) return false
  return (
    role.builtIn ||
    looksAfterRoles(asker) ||
    asks(asker, 'edit settings') ||
    asks(asker, 'security') ||
    id === workspaceOf(state).defaultRole ||
    powersOf(asker.snapshot, asker.person).some(power => power.role === id) ||
    rowsBy(state.holdings, 'role', id).some(holding => isKept(asker, holding))
  )
}

/** Whose roles are told to the asker: whom they look after. */
function isKept(asker: Asker, { person: id }: Holding): boolean {
  const person = rowOf(asker.snapshot.state.persons, id)
  return person !== undefined && managerOf(asker)(person)
}

/** Sees all roles, or gives some of them over whomever. */
const looksAfterRoles = (asker: Asker): boolean =>
  asks(asker, 'view roles') ||
  powersOf(asker.snapshot, asker.person).some(power => power.privileges.has('assign roles'))

const invites = (asker: Asker): boolean => asks(asker, 'invite members') || asks(asker, 'invite guests')
