import type {
  AccountId,
  GrantId,
  HoldingId,
  LimitId,
  MembershipId,
  NodeId,
  PersonId,
  TeamId,
  WorkspaceId,
} from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { levelActions } from '#core/levels/level.ts'
import { blankProfile, type Person, type Team } from '#core/people/person.ts'
import { builtInRoles, guestRole, memberRole, ownerRole } from '#core/people/role.ts'
import type { Principal } from '#core/rules/principal.ts'
import { usualPolicies } from '#core/rules/workspace.ts'
import type { Rows, TableName } from '#core/state/kinds.ts'
import type { RecordChange } from '#core/state/state.ts'
import { type ContentNode, kindsWithin, type NodeKind } from '#core/tree/node.ts'
import { createRandom, type Random } from './random.ts'
import { files, pages, rows as rowsByBoard } from './scenario/words.ts'
import { sharedHomes } from './scenario/places.ts'
import { people as named } from './scenario/people.ts'
import { teams as namedTeams } from './scenario/teams.ts'

/** How much there is in a workspace made for measuring. */
export interface Size {
  readonly people: number
  readonly teams: number
  readonly nodes: number
  readonly grants: number
  readonly limits: number
  readonly breaks: number
}

export const sizes = {
  S: { people: 100, teams: 10, nodes: 1000, grants: 250, limits: 8, breaks: 20 },
  M: { people: 2000, teams: 120, nodes: 50_000, grants: 10_000, limits: 150, breaks: 600 },
  L: { people: 20_000, teams: 1000, nodes: 1_000_000, grants: 200_000, limits: 2000, breaks: 10_000 },
} as const satisfies Record<string, Size>

/** A record, in an order in which it can be written. */
type Made = Extract<RecordChange, { before: unknown }>

/** Who founds it and signs in to it. */
export const largeOwner = {
  person: 'p0' as PersonId,
  account: 'a0' as AccountId,
  mail: 'owner@large.example',
}

/**
 * A workspace of a size, out of the words of the demo: the same each time, one record after the other,
 * so that a million of them need no memory. Made as records and not as judged steps, which would take
 * days; it keeps what the core keeps: every place has its parent and somebody to share it, guests hold
 * nothing that guests may not. One in ten grants, limits and memberships starts or ends.
 */
export function* generateLarge(size: Size, now: Instant): Generator<Made> {
  const random = createRandom(size.nodes)
  const made = { size, now, random }
  yield record('workspaces', workspace(now))
  for (const role of builtInRoles) yield record('roles', role)
  for (let index = 0; index < size.people; index += 1) yield record('persons', personAt(made, index))
  for (let index = 0; index < size.people; index += 1)
    yield record('holdings', {
      id: `h${index}` as HoldingId,
      person: personId(index),
      role: index === 0 ? ownerRole : isGuest(index) ? guestRole : memberRole,
      scope: { over: 'workspace' },
      from: null,
      until: null,
    })
  for (let index = 0; index < size.teams; index += 1) yield record('teams', teamAt(made, index))
  yield* memberships(made)
  yield* nodes(made)
  yield* entries(made)
}

const record = <T extends TableName>(table: T, after: Rows[T]) =>
  ({ table, id: after.id, before: null, after }) as unknown as Made

interface Making {
  readonly size: Size
  readonly now: Instant
  readonly random: Random
}

const day = 86_400_000
const personId = (index: number) => `p${index}` as PersonId
const teamId = (index: number) => `t${index}` as TeamId
/** As long as ids are that are made one by one. */
const longId = (letter: string, index: number) => letter + String(index).padStart(25, '0')
/** Of the place made as the so-manyth: the root is the first. */
export const nodeId = (index: number) => longId('n', index) as NodeId
/** One in eight is a guest; the owner is not. */
const isGuest = (index: number) => index % 8 === 7

const workspace = (now: Instant): Rows['workspaces'] => ({
  id: 'workspace-large' as WorkspaceId,
  name: 'A large coast survey',
  slug: 'large',
  timeZone: 'Europe/London',
  madeAt: now - 300 * day,
  ...usualPolicies,
})

/** Names repeat with a number behind them. */
const numbered = (names: readonly string[], index: number): string => {
  const name = names[index % names.length] ?? ''
  return index < names.length ? name : `${name} ${Math.floor(index / names.length) + 1}`
}

const personNames = named.map(each => each.name)
const teamNames = namedTeams.map(each => each.name)
const homeNames = sharedHomes.map(each => each.name)

const personAt = ({ now }: Making, index: number): Person => ({
  id: personId(index),
  account: index === 0 ? largeOwner.account : null,
  name: numbered(personNames, index),
  mail: index === 0 ? largeOwner.mail : `p${index}@large.example`,
  ...blankProfile,
  kind: isGuest(index) ? 'guest' : 'member',
  status: index % 50 === 49 ? 'suspended' : 'active',
  contact: isGuest(index) ? personId(0) : null,
  invitedBy: index === 0 ? null : personId(0),
  joinedAt: now - 300 * day,
  agreedAt: null,
  from: null,
  until: index % 40 === 39 ? now + (index % 90) * day : null,
})

const teamAt = ({ now }: Making, index: number): Team => ({
  id: teamId(index),
  name: numbered(teamNames, index),
  note: '',
  picture: null,
  joining: index % 5 === 4 ? 'open' : 'request',
  welcomesGuests: index % 2 === 0,
  archived: index % 60 === 59,
  archivedAt: null,
  allowsPublishing: true,
  posting: 'everyone',
  addressing: 'leads',
  keptByDirectory: false,
  madeAt: now - 290 * day,
})

/** One in ten starts later or ends some day. */
function span({ random, now }: Making) {
  if (!random.chance(10)) return { from: null, until: null }
  const at = now + (1 + random.whole(200)) * day
  return random.chance(3) ? { from: at, until: null } : { from: null, until: at }
}

/** A lead each, and about two dozen people. Guests only where they are welcome. */
function* memberships(made: Making): Generator<Made> {
  const { size, random, now } = made
  const since = now - 280 * day
  for (let team = 0; team < size.teams; team += 1) {
    const inTeam = new Set([leadOf(size, team)])
    for (let count = Math.min(24, size.people / 4); count > 0; count -= 1) {
      const person = random.whole(size.people)
      if (!isGuest(person) || team % 2 === 0) inTeam.add(person)
    }
    for (const person of inTeam) {
      const lead = person === leadOf(size, team)
      const id = `m${team}-${person}` as MembershipId
      const when = lead ? { from: null, until: null } : span(made)
      yield record('memberships', { id, team: teamId(team), person: personId(person), lead, since, ...when })
    }
  }
}

/** A member who stays. */
const leadOf = (size: Size, team: number): number => {
  const person = (team * 16) % size.people
  return isGuest(person) || person % 50 === 49 || person % 40 === 39 ? 0 : person
}

const homesIn = (size: Size) => size.teams + Math.ceil(size.teams / 2)

/** What can hold something. */
interface Holder {
  readonly index: number
  readonly kind: NodeKind
}

/** The last of the homes, below which one in ten of all places lies. */
export const largestHome = (size: Size): NodeId => nodeId(homesIn(size))

/** The root, after it the homes, then all else, each below something that came before it. */
function* nodes(made: Making): Generator<Made> {
  const { size, random } = made
  const homes = homesIn(size)
  const holders: Holder[] = []
  // One in ten goes into one of the shared homes: so there is a place with very much below it.
  const inBiggest: Holder[] = [{ index: homes, kind: 'folder' }]
  yield record('nodes', nodeAt(made, { index: 0, parent: null, kind: 'root', name: 'A large coast survey' }))
  for (let index = 1; index <= homes; index += 1) {
    const isTeams = index <= size.teams
    const name = isTeams ? numbered(teamNames, index - 1) : numbered(homeNames, index - size.teams - 1)
    const home = isTeams ? ({ of: 'team', team: teamId(index - 1) } as const) : ({ of: 'shared' } as const)
    yield record('nodes', { ...nodeAt(made, { index, parent: 0, kind: 'folder', name }), home })
    if (index < homes) holders.push({ index, kind: 'folder' })
  }
  for (let index = homes + 1; index < size.nodes; index += 1) {
    // Half of what is new goes into what is rather new: that makes the tree deep in places.
    const among = random.chance(10) ? inBiggest : holders
    const recent = random.chance(2) ? Math.max(0, among.length - 2000) : 0
    const parent = among[recent + random.whole(among.length - recent)] as Holder
    const kind = random.one(kindsWithin(parent.kind))
    yield record('nodes', nodeAt(made, { index, parent: parent.index, kind, name: nameFor(kind, random) }))
    if (kind !== 'file') among.push({ index, kind })
  }
}

interface NodeBits {
  readonly index: number
  readonly parent: number | null
  readonly kind: NodeKind
  readonly name: string
}

function nodeAt({ size, now }: Making, { index, parent, kind, name }: NodeBits): ContentNode {
  const maker = personId(0)
  const everyBreak = Math.max(2, Math.floor(size.nodes / size.breaks))
  const isBroken = index > homesIn(size) && index % everyBreak === 1
  return {
    id: nodeId(index),
    parent: parent === null ? null : nodeId(parent),
    kind,
    name,
    note: '',
    maker,
    madeAt: now - 200 * day,
    order: 0,
    section: null,
    serial: kind === 'board' ? 0 : null,
    home: null,
    broken: isBroken ? { by: maker, at: now - 100 * day } : null,
    draft: kind === 'page' && index % 211 === 0,
    archived: index % 1999 === 1998,
    archivedAt: index % 1999 === 1998 ? now - 50 * day : null,
    binned: null,
    web: index % 2503 === 2502 ? 'published' : null,
  }
}

const rowNames = Object.values(rowsByBoard).flat()

const nameFor = (kind: NodeKind, random: Random): string =>
  random
    .one(kind === 'row' ? rowNames : kind === 'file' ? files : pages)
    .replace('DAY', `${1 + random.whole(28)} May`)

/** Stewards of the homes and of what is broken, then grants and limits anywhere. */
function* entries(made: Making): Generator<Made> {
  const { size, random, now } = made
  const by = { by: personId(0), at: now - 100 * day }
  let grants = 0
  const give = (node: number, principal: Principal, level: Parameters<typeof levelActions>[0]) => {
    const id = longId('g', (grants += 1)) as GrantId
    const gives = levelActions(level)
    const isSteward = level === 'Steward'
    const when = isSteward ? { from: null, until: null } : span(made)
    return record('grants', { id, node: nodeId(node), principal, gives, copiedFrom: null, ...by, ...when })
  }
  for (let team = 0; team < size.teams; team += 1) {
    yield give(team + 1, `leads:${teamId(team)}`, 'Steward')
    yield give(team + 1, `team:${teamId(team)}`, 'Adder')
  }
  for (let home = size.teams + 1; home <= homesIn(size); home += 1) {
    yield give(home, `person:${personId(0)}`, 'Steward')
    yield give(home, 'everyone', 'Reader')
  }
  const everyBreak = Math.max(2, Math.floor(size.nodes / size.breaks))
  for (let index = homesIn(size) + 1; index < size.nodes; index += 1)
    if (index % everyBreak === 1) yield give(index, `person:${personId(0)}`, 'Steward')
  const levels = ['Preview', 'Reader', 'Commenter', 'Adder', 'Editor', 'Curator'] as const
  while (grants < size.grants) {
    const toTeam = random.chance(2)
    const principal: Principal = toTeam
      ? `team:${teamId(random.whole(size.teams))}`
      : `person:${personId(random.whole(size.people))}`
    yield give(1 + random.whole(size.nodes - 1), principal, random.one(levels))
  }
  const leads = new Set(Array.from({ length: size.teams }, (_, team) => leadOf(size, team)))
  for (let index = 0; index < size.limits; index += 1) {
    const node = nodeId(1 + random.whole(size.nodes - 1))
    const person = 1 + random.whole(size.people - 1)
    // Who answers for a home alone is not limited in it.
    const one: Principal = leads.has(person) ? 'guests' : `person:${personId(person)}`
    const principal = random.one<Principal>(['guests', 'anyone', one])
    const allows = levelActions(random.one(['Preview', 'Reader', 'Commenter']))
    const id = `l${index}` as LimitId
    yield record('limits', { id, node, principal, allows, sparesStewards: true, ...by, ...span(made) })
  }
}
