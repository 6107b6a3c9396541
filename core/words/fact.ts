import { isSame } from '../base/same.ts'
import type { NodeId, RoleId } from '../base/ids.ts'
import type { Instant, Span } from '../base/instant.ts'
import type { Fact } from '../changes/fact.ts'
import type { Channel } from '../rules/channel.ts'
import type { AccessRequest } from '../people/asking.ts'
import type { JoinRequest, Membership, Person, Team } from '../people/person.ts'
import type { Gives, Grant, Limit } from '../rules/entry.ts'
import type { Principal } from '../rules/principal.ts'
import type { RecordChange } from '../state/state.ts'
import type { BoardColumn } from '../rules/column.ts'
import type { ContentNode } from '../tree/node.ts'
import {
  changedFields,
  channelFields,
  columnFields,
  joinLinkFields,
  personFields,
  teamFields,
  welcomeSetFields,
} from './changed-fields.ts'
import type { Naming } from './refusal.ts'
import { handoverWords, holdingWords, lookWords, roleRequestWords, roleWords } from './role-fact.ts'
import { workspaceWords } from './workspace-fact.ts'

/** Names for telling what was done; whoever tells a fact has made sure that it may be named. */
export interface FactNaming extends Naming {
  readonly principal: (principal: Principal) => string
  /** A place with what it stands in, where many are called alike: "Method in Harrow Creek". */
  readonly where: (node: NodeId) => string | undefined
  readonly level: (gives: Gives) => string
  readonly role: (role: RoleId) => string
  /** The last day that an end includes. */
  readonly through: (until: Instant) => string
  /** A first day: "on 3 Mar", or "at once". */
  readonly since: (from: Instant | null) => string
}

/** What was done, told after its author's name: "gave Pilar Onsund Editor on Harrow Creek". */
export function factInWords({ change }: Fact, naming: FactNaming): string {
  switch (change.table) {
    case 'grants':
      return grantWords(change, naming)
    case 'limits':
      return limitWords(change, naming)
    case 'nodes':
      return nodeWords(change, naming)
    case 'memberships':
      return membershipWords(change, naming)
    case 'persons':
      return personWords(change, naming)
    case 'invitations':
      return `sent ${personNamed((change.after ?? change.before)?.person, naming)} the invitation again`
    case 'holdings':
      return holdingWords(change, naming)
    case 'teams':
      return teamWords(change)
    case 'workspaces':
      return workspaceWords(change, naming)
    case 'levels':
      return levelWords(change, naming)
    case 'roles':
      return roleWords(change)
    case 'roleRequests':
      return roleRequestWords(change, naming)
    case 'handovers':
      return handoverWords(change, naming)
    case 'looks':
      return lookWords(change, naming)
    case 'accessRequests':
      return accessRequestWords(change, naming)
    case 'watches':
      return 'changed their own notifications'
    case 'columns':
      return columnWords(change, naming)
    case 'channels':
      return channelWords(change, naming)
    case 'handles':
      return `changed the profile of ${personNamed((change.after ?? change.before)?.person, naming)}`
    case 'requests':
      return requestWords(change, naming)
    case 'welcomeSets':
      return madeWords('welcome set', change, welcomeSetFields)
    case 'joinLinks':
      return madeWords('join link', change, joinLinkFields)
  }
}

type Of<T extends RecordChange['table']> = Extract<RecordChange, { table: T }>

const lasting = ({ until }: Span, { through }: FactNaming) =>
  until === null ? '' : ` until ${through(until)}`

const personNamed = (person: Person['id'] | undefined, naming: FactNaming) =>
  (person === undefined ? undefined : naming.person(person)) ?? 'somebody'

const placeOf = (row: Pick<Grant | Limit, 'node'>, naming: FactNaming) =>
  naming.where(row.node) ?? 'a deleted place'

function grantWords({ before, after }: Of<'grants'>, naming: FactNaming): string {
  const row = (after ?? before) as Grant
  const who = naming.principal(row.principal)
  const at = placeOf(row, naming)
  if (before === null) return `gave ${who} ${naming.level(row.gives)} on ${at}${lasting(row, naming)}`
  const level = naming.level(row.gives)
  if (after === null) return `ended the ${level} grant of ${who} on ${at}`
  if (isSame(before, after)) return `started the ${level} grant of ${who} on ${at}`
  const end =
    before.until === after.until ? '' : after.until === null ? ', without an end' : lasting(after, naming)
  if (before.gives !== after.gives)
    return `changed ${who} from ${naming.level(before.gives)} to ${level} on ${at}${end}`
  return end === ''
    ? `changed the ${level} grant of ${who} on ${at}`
    : `changed the end of the ${level} grant of ${who} on ${at}:${end.replace(/^,/u, '')}`
}

function limitWords({ before, after }: Of<'limits'>, naming: FactNaming): string {
  const row = (after ?? before) as Limit
  const who = naming.principal(row.principal)
  const at = placeOf(row, naming)
  if (after === null) return `removed the limit of ${who} to ${naming.level(row.allows)} on ${at}`
  if (isSame(before, after)) return `started the limit of ${who} on ${at}`
  const word = before === null ? 'limited' : 'changed the limit of'
  return `${word} ${who} to ${naming.level(row.allows)} on ${at}${lasting(row, naming)}`
}

function nodeWords({ id, before, after }: Of<'nodes'>, naming: FactNaming): string {
  const name = naming.place(id) ?? ((after ?? before) as ContentNode).name
  if (after === null) return goneWords(before, name)
  const parent = after.parent === null || after.home !== null ? undefined : naming.place(after.parent)
  if (before === null) {
    const kind = after.home === null ? after.kind : 'home'
    return `created the ${kind} ${name}${parent === undefined ? '' : ` in ${parent}`}`
  }
  return changesOfNode({ name, where: naming.where(id) ?? name, parent, before, after })
}

const goneWords = (before: ContentNode | null, name: string): string =>
  before?.binned == null
    ? `removed the ${before?.kind ?? 'place'} ${name}`
    : `deleted the ${before.kind} ${name} for good`

function changesOfNode(told: ToldNode): string {
  const acts = nodeActs.flatMap(({ differs, words }) =>
    differs(told.before, told.after) ? [words(told)] : [],
  )
  return acts.join(', ') || `changed ${told.name}`
}

interface ToldNode {
  readonly name: string
  readonly where: string
  readonly parent: string | undefined
  readonly before: ContentNode
  readonly after: ContentNode
}

interface NodeAct {
  readonly differs: (before: ContentNode, after: ContentNode) => boolean
  readonly words: (told: ToldNode) => string
}

const nodeActs: readonly NodeAct[] = [
  {
    differs: (before, after) => before.name !== after.name,
    words: ({ before, after }) => `renamed ${before.name} to ${after.name}`,
  },
  {
    differs: (before, after) => before.parent !== after.parent,
    words: ({ name, parent }) => `moved ${name}${parent === undefined ? '' : ` to ${parent}`}`,
  },
  {
    differs: (before, after) => before.note !== after.note,
    words: ({ name }) => `changed the description of ${name}`,
  },
  {
    differs: (before, after) => (before.broken === null) !== (after.broken === null),
    words: ({ where, after }) =>
      after.broken === null ? `restored inheritance on ${where}` : `broke inheritance on ${where}`,
  },
  {
    differs: (before, after) => (before.binned === null) !== (after.binned === null),
    words: ({ name, after }) =>
      after.binned !== null ? `moved ${name} to the bin` : `restored ${name} from the bin`,
  },
  {
    differs: (before, after) => before.archived !== after.archived,
    words: ({ name, after }) => (after.archived ? `archived ${name}` : `restored ${name} from the archive`),
  },
  {
    differs: (before, after) => before.draft !== after.draft,
    words: ({ name, after }) => (after.draft ? `turned ${name} into a draft` : `released ${name}`),
  },
  {
    differs: (before, after) => before.web !== after.web,
    words: ({ where, before, after }) => webWords(where, before.web, after.web),
  },
  {
    differs: (before, after) => before.order !== after.order,
    words: ({ name }) => `changed the order of ${name}`,
  },
]

function webWords(where: string, before: ContentNode['web'], after: ContentNode['web']): string {
  if (after === 'published') return `published ${where} to the web`
  if (after === 'excluded') return `kept ${where} off the web`
  return before === 'published' ? `took ${where} off the web` : `stopped keeping ${where} off the web`
}

function membershipWords({ before, after }: Of<'memberships'>, naming: FactNaming): string {
  const row = (after ?? before) as Membership
  const who = personNamed(row.person, naming)
  const team = naming.team(row.team) ?? 'a deleted team'
  if (after === null) return `removed ${who} from ${team}`
  if (isSame(before, after)) return `started the membership of ${who} in ${team}`
  if (before === null)
    return `added ${who} to ${team}${after.lead ? ' as a lead' : ''}${lasting(after, naming)}`
  if (before.lead !== after.lead)
    return after.lead ? `made ${who} a lead of ${team}` : `removed ${who} as a lead of ${team}`
  return after.until === null
    ? `removed the end of the membership of ${who} in ${team}`
    : `changed the end of the membership of ${who} in ${team}:${lasting(after, naming)}`
}

function personWords({ id, before, after }: Of<'persons'>, naming: FactNaming): string {
  const row = (after ?? before) as Person
  const who = naming.person(id) ?? (row.name || row.mail)
  if (before === null) return `invited ${who} as a ${row.kind}`
  if (after === null) return `withdrew the invitation of ${who}`
  if (isSame(before, after)) return passingWords(after, who)
  if (before.status !== after.status) return statusWords(before, after, who)
  if (before.kind !== after.kind) return `made ${who} a ${after.kind}`
  if (before.contact !== after.contact) return `changed the contact of ${who}`
  return timeWords(before, after, { who, naming }) ?? profileWords(before, after, who)
}

const profileWords = (before: Person, after: Person, who: string): string =>
  before.name !== after.name && before.name !== ''
    ? `changed the name of ${before.name} to ${after.name}`
    : `changed the profile of ${who}${changedFields(before, after, personFields)}`

function timeWords(
  before: Person,
  after: Person,
  { who, naming }: { who: string; naming: FactNaming },
): string | undefined {
  if (before.from !== after.from)
    return `changed when the access of ${who} starts: ${naming.since(after.from)}`
  if (before.until === after.until) return undefined
  return after.until === null
    ? `removed the end of the access of ${who}`
    : `changed when the access of ${who} ends: ${naming.through(after.until)}`
}

/** A start or an end that passed by itself. */
function passingWords({ from, until }: Person, who: string): string {
  if (until === null) return `started the access of ${who}`
  return from === null ? `ended the access of ${who}` : `started or ended the access of ${who}`
}

function statusWords(before: Person, after: Person, who: string): string {
  if (before.status === 'invited') return 'joined the workspace'
  if (after.status === 'removed') return `removed ${who} from the workspace`
  return after.status === 'suspended' ? `suspended ${who}` : `reactivated ${who}`
}

function levelWords({ before, after }: Of<'levels'>, naming: FactNaming): string {
  if (before === null) return `created the level ${after?.name ?? ''}`
  if (after === null) return `deleted the level ${before.name}`
  return before.actions === after.actions
    ? `renamed the level ${before.name} to ${after.name}`
    : `changed the level ${after.name} from ${naming.level(before.actions)} to ${naming.level(after.actions)}`
}

function teamWords({ before, after }: Of<'teams'>): string {
  if (before === null) return `created the team ${(after as Team).name}`
  if (after === null)
    return before.archived ? `deleted the team ${before.name} for good` : `removed the team ${before.name}`
  if (before.archived !== after.archived)
    return `${after.archived ? 'archived' : 'restored'} the team ${after.name}`
  return before.name === after.name
    ? `changed the team ${after.name}${changedFields(before, after, teamFields)}`
    : `renamed the team ${before.name} to ${after.name}`
}

function requestWords({ before, after }: Of<'requests'>, naming: FactNaming): string {
  const row = (after ?? before) as JoinRequest
  const team = naming.team(row.team) ?? 'a deleted team'
  const who = personNamed(row.person, naming)
  if (before === null) return `requested to join ${team}`
  if (after === null) return `closed the request of ${who} to join ${team}`
  return after.declined === null
    ? `reopened the request of ${who} to join ${team}`
    : `declined the request of ${who} to join ${team}`
}

/** A place that is hidden from who asked is told like one that is not there. */
function accessRequestWords({ before, after }: Of<'accessRequests'>, naming: FactNaming): string {
  const row = (after ?? before) as AccessRequest
  const wanted = `${naming.level(row.wants)} on ${naming.where(row.node) ?? 'a place, by its address'}`
  if (before === null) return `requested ${wanted}`
  const who = personNamed(row.person, naming)
  if (after === null) return `closed the request of ${who} for ${wanted}`
  return after.declined === null
    ? `reopened the request of ${who} for ${wanted}`
    : `declined the request of ${who} for ${wanted}`
}

interface Made<Row> {
  readonly before: Row | null
  readonly after: Row | null
}

function madeWords<Row extends { readonly name: string }>(
  what: string,
  { before, after }: Made<Row>,
  fields: Partial<Record<keyof Row, string>>,
): string {
  if (before === null) return `created the ${what} ${after?.name ?? ''}`
  return after === null
    ? `withdrew the ${what} ${before.name}`
    : `changed the ${what} ${after.name}${changedFields(before, after, fields)}`
}

/** Who reads the history need not see a restricted column, or be in a restricted channel: these are not named. */
function columnWords({ before, after }: Of<'columns'>, naming: FactNaming): string {
  const row = (after ?? before) as BoardColumn
  const isHidden = [before, after].some(each => each !== null && each.viewers !== null)
  const column = `${isHidden ? 'a restricted column' : `the column ${row.name}`} of ${naming.where(row.board) ?? 'a board'}`
  if (before === null) return `created ${column}`
  if (after === null) return `deleted ${column}`
  const isSharing = !isSame([before.viewers, before.editors], [after.viewers, after.editors])
  return isSharing
    ? `changed who can see or edit ${column}`
    : `changed ${column}${isHidden ? '' : changedFields(before, after, columnFields)}`
}

function channelWords({ before, after }: Of<'channels'>, naming: FactNaming): string {
  const row = (after ?? before) as Channel
  const isHidden = [before, after].some(each => each !== null && each.only !== null)
  const channel = `${isHidden ? 'a restricted channel' : `the channel ${row.name}`} of ${naming.team(row.team) ?? 'a team'}`
  if (before === null) return `created ${channel}`
  if (after === null) return `removed ${channel}`
  if (before.archived !== after.archived) return `${after.archived ? 'archived' : 'restored'} ${channel}`
  return isSame(before.only, after.only)
    ? `changed ${channel}${isHidden ? '' : changedFields(before, after, channelFields)}`
    : `changed who is in ${channel}`
}
