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
import type { Workspace } from '../rules/workspace.ts'
import type { ContentNode } from '../tree/node.ts'
import type { Naming } from './refusal.ts'
import { handoverWords, holdingWords, lookWords, roleRequestWords, roleWords } from './role-fact.ts'

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
      return `sent ${personNamed((change.after ?? change.before)?.person, naming)} their invitation anew`
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
      return 'chose what to be told'
    case 'columns':
      return columnWords(change, naming)
    case 'channels':
      return channelWords(change, naming)
    case 'handles':
      return `changed ${personNamed((change.after ?? change.before)?.person, naming)}’s profile`
    case 'requests':
      return requestWords(change, naming)
    case 'welcomeSets':
      return madeWords('welcome set', change)
    case 'joinLinks':
      return madeWords('join link', change)
  }
}

type Of<T extends RecordChange['table']> = Extract<RecordChange, { table: T }>

const lasting = ({ until }: Span, { through }: FactNaming) =>
  until === null ? '' : ` through ${through(until)}`

const personNamed = (person: Person['id'] | undefined, naming: FactNaming) =>
  (person === undefined ? undefined : naming.person(person)) ?? 'somebody'

const placeOf = (row: Pick<Grant | Limit, 'node'>, naming: FactNaming) =>
  naming.where(row.node) ?? 'a place that is no more'

function grantWords({ before, after }: Of<'grants'>, naming: FactNaming): string {
  const row = (after ?? before) as Grant
  const who = naming.principal(row.principal)
  const at = placeOf(row, naming)
  if (before === null) return `gave ${who} ${naming.level(row.gives)} on ${at}${lasting(row, naming)}`
  if (after === null) return `ended what ${who} had on ${at}, ${naming.level(row.gives)}`
  if (isSame(before, after)) return `let begin what ${who} has on ${at}, ${naming.level(row.gives)}`
  const end =
    before.until === after.until ? '' : after.until === null ? ', without an end' : lasting(after, naming)
  const level = naming.level(after.gives)
  return before.gives === after.gives
    ? `let ${who} keep ${level} on ${at}${end === '' ? ' as it is' : end}`
    : `made it ${level} for ${who} on ${at}, ${naming.level(before.gives)} before${end}`
}

function limitWords({ before, after }: Of<'limits'>, naming: FactNaming): string {
  const row = (after ?? before) as Limit
  const who = naming.principal(row.principal)
  const at = placeOf(row, naming)
  if (after === null) return `lifted the limit for ${who} on ${at}, ${naming.level(row.allows)}`
  if (isSame(before, after)) return `let begin the limit for ${who} on ${at}`
  const word = before === null ? 'limited' : 'changed the limit of'
  return `${word} ${who} to ${naming.level(row.allows)} on ${at}${lasting(row, naming)}`
}

function nodeWords({ id, before, after }: Of<'nodes'>, naming: FactNaming): string {
  const name = naming.place(id) ?? ((after ?? before) as ContentNode).name
  if (after === null) return goneWords(before, name)
  const parent = after.parent === null || after.home !== null ? undefined : naming.place(after.parent)
  if (before === null) {
    const kind = after.home === null ? after.kind : 'home'
    return `made the ${kind} ${name}${parent === undefined ? '' : ` in ${parent}`}`
  }
  return changesOfNode({ name, where: naming.where(id) ?? name, parent, before, after })
}

const goneWords = (before: ContentNode | null, name: string): string =>
  before?.binned == null
    ? `took away the ${before?.kind ?? 'place'} ${name}`
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
    words: ({ name }) => `described ${name} anew`,
  },
  {
    differs: (before, after) => (before.broken === null) !== (after.broken === null),
    words: ({ where, after }) =>
      after.broken === null ? `let ${where} follow again` : `stopped what comes from above at ${where}`,
  },
  {
    differs: (before, after) => (before.binned === null) !== (after.binned === null),
    words: ({ name, after }) =>
      after.binned !== null ? `put ${name} in the bin` : `brought ${name} back from the bin`,
  },
  {
    differs: (before, after) => before.archived !== after.archived,
    words: ({ name, after }) =>
      after.archived ? `archived ${name}` : `brought ${name} back from the archive`,
  },
  {
    differs: (before, after) => before.draft !== after.draft,
    words: ({ name, after }) => (after.draft ? `made ${name} a draft` : `released ${name}`),
  },
  {
    differs: (before, after) => before.web !== after.web,
    words: ({ where, before, after }) => webWords(where, before.web, after.web),
  },
  {
    differs: (before, after) => before.order !== after.order,
    words: ({ name }) => `put ${name} in another order`,
  },
]

function webWords(where: string, before: ContentNode['web'], after: ContentNode['web']): string {
  if (after === 'published') return `published ${where} to the web`
  if (after === 'excluded') return `excluded ${where} from the web`
  return before === 'published'
    ? `withdrew ${where} from the web`
    : `no longer excluded ${where} from the web`
}

function membershipWords({ before, after }: Of<'memberships'>, naming: FactNaming): string {
  const row = (after ?? before) as Membership
  const who = personNamed(row.person, naming)
  const team = naming.team(row.team) ?? 'a team that is no more'
  if (after === null) return `took ${who} out of ${team}`
  if (isSame(before, after)) return `let begin ${who}’s time in ${team}`
  if (before === null)
    return `put ${who} into ${team}${after.lead ? ' as a lead' : ''}${lasting(after, naming)}`
  if (before.lead !== after.lead)
    return after.lead ? `made ${who} a lead of ${team}` : `made ${who} no longer a lead of ${team}`
  return `let ${who} stay in ${team}${after.until === null ? ' without an end' : lasting(after, naming)}`
}

function personWords({ id, before, after }: Of<'persons'>, naming: FactNaming): string {
  const row = (after ?? before) as Person
  const who = naming.person(id) ?? (row.name || row.mail)
  if (before === null) return `invited ${who} as a ${row.kind}`
  if (after === null) return `withdrew the invitation of ${who}`
  if (isSame(before, after)) return `let ${who}’s time here begin or end`
  if (before.status !== after.status) return statusWords(before, after, who)
  if (before.kind !== after.kind) return `made ${who} a ${after.kind}`
  if (before.contact !== after.contact) return `gave ${who} another contact`
  return timeWords(before, after, { who, naming }) ?? `changed ${who}’s profile`
}

function timeWords(
  before: Person,
  after: Person,
  { who, naming }: { who: string; naming: FactNaming },
): string | undefined {
  if (before.from !== after.from) return `let ${who}’s time here begin ${naming.since(after.from)}`
  if (before.until === after.until) return undefined
  return after.until === null
    ? `let ${who} stay without an end`
    : `let ${who}’s time here end with ${naming.through(after.until)}`
}

function statusWords(before: Person, after: Person, who: string): string {
  if (before.status === 'invited') return 'came in'
  if (after.status === 'removed') return `removed ${who} from the workspace`
  return after.status === 'suspended' ? `suspended ${who}` : `brought ${who} back`
}

function levelWords({ before, after }: Of<'levels'>, naming: FactNaming): string {
  if (before === null) return `made the level ${after?.name ?? ''}`
  if (after === null) return `deleted the level ${before.name}`
  return before.actions === after.actions
    ? `renamed the level ${before.name} to ${after.name}`
    : `changed what the level ${after.name} gives from ${naming.level(before.actions)} to ${naming.level(after.actions)}`
}

function teamWords({ before, after }: Of<'teams'>): string {
  if (before === null) return `made the team ${(after as Team).name}`
  if (after === null)
    return before.archived ? `deleted the team ${before.name} for good` : `took away the team ${before.name}`
  if (before.archived !== after.archived)
    return `${after.archived ? 'archived' : 'brought back'} the team ${after.name}`
  return before.name === after.name
    ? `changed the team ${after.name}`
    : `renamed the team ${before.name} to ${after.name}`
}

function requestWords({ before, after }: Of<'requests'>, naming: FactNaming): string {
  const row = (after ?? before) as JoinRequest
  const team = naming.team(row.team) ?? 'a team that is no more'
  const who = personNamed(row.person, naming)
  if (before === null) return `asked to join ${team}`
  if (after === null) return `closed ${who}’s request to join ${team}`
  return after.declined === null
    ? `opened ${who}’s request to join ${team} again`
    : `declined ${who}’s request to join ${team}`
}

/** A place that is hidden from who asked is told like one that is not there. */
function accessRequestWords({ before, after }: Of<'accessRequests'>, naming: FactNaming): string {
  const row = (after ?? before) as AccessRequest
  const wanted = `${naming.level(row.wants)} on ${naming.where(row.node) ?? 'a place by its address'}`
  if (before === null) return `asked for ${wanted}`
  const who = personNamed(row.person, naming)
  if (after === null) return `closed ${who}’s request for ${wanted}`
  return after.declined === null
    ? `opened ${who}’s request for ${wanted} again`
    : `declined ${who}’s request for ${wanted}`
}

function madeWords(what: string, { before, after }: Of<'welcomeSets'> | Of<'joinLinks'>): string {
  if (before === null) return `made the ${what} ${after?.name ?? ''}`
  return after === null ? `withdrew the ${what} ${before.name}` : `changed the ${what} ${after.name}`
}

function workspaceWords({ before, after }: Of<'workspaces'>, naming: FactNaming): string {
  if (before === null || after === null) return 'created the workspace'
  const acts = settings.flatMap(({ field, words }) =>
    isSame(before[field], after[field]) ? [] : [words(after, naming, before)],
  )
  return acts.filter(Boolean).join(', ') || 'changed the settings of the workspace'
}

interface Setting {
  readonly field: keyof Workspace
  /** Empty where another setting tells it. */
  readonly words: (after: Workspace, naming: FactNaming, before: Workspace) => string
}

const domainWords = (domains: readonly string[]) => (domains.length === 0 ? 'anywhere' : domains.join(', '))

const settings: readonly Setting[] = [
  { field: 'name', words: ({ name }) => `named the workspace ${name}` },
  { field: 'timeZone', words: ({ timeZone }) => `set the time zone to ${timeZone}` },
  { field: 'picture', words: () => 'changed the picture of the workspace' },
  {
    field: 'guestCeiling',
    words: ({ guestCeiling }, { level }) => `let guests have ${level(guestCeiling)} at most`,
  },
  {
    field: 'allowsPublishing',
    words: ({ allowsPublishing }) => `switched publishing ${allowsPublishing ? 'on' : 'off'}`,
  },
  {
    field: 'defaultRole',
    words: ({ defaultRole }, { role }) => `made ${role(defaultRole)} the role of new members`,
  },
  {
    field: 'seats',
    words: ({ seats }) => (seats === null ? 'took the end off the seats' : `set the seats to ${seats}`),
  },
  {
    field: 'seatsNext',
    words: ({ seatsNext, seats }, { since }, before) => {
      if (seatsNext === null) return before.seats === seats ? 'took back the seats that were planned' : ''
      return `planned ${seatsNext.seats ?? 'any number of'} seats to begin ${since(seatsNext.from)}`
    },
  },
  {
    field: 'suspendedHoldSeats',
    words: ({ suspendedHoldSeats }) =>
      `let suspended people ${suspendedHoldSeats ? 'keep' : 'free'} their seat`,
  },
  {
    field: 'memberDomains',
    words: ({ memberDomains }) => `let members come from ${domainWords(memberDomains)}`,
  },
  { field: 'guestDomains', words: ({ guestDomains }) => `let guests come from ${domainWords(guestDomains)}` },
  {
    field: 'invitationDays',
    words: ({ invitationDays }) => `let invitations work for ${invitationDays} days`,
  },
  {
    field: 'houseRules',
    words: ({ houseRules }) => (houseRules === '' ? 'took the house rules away' : 'wrote the house rules'),
  },
  {
    field: 'secondFactorFor',
    words: ({ secondFactorFor }, { role }) =>
      secondFactorFor.length === 0
        ? 'asks nobody for a second step at sign-in'
        : `asks for a second step at sign-in of ${secondFactorFor.map(role).join(', ')}`,
  },
  {
    field: 'signInDays',
    words: ({ signInDays }) => `let a sign-in last ${signInDays === 1 ? 'a day' : `${signInDays} days`}`,
  },
  {
    field: 'idleHours',
    words: ({ idleHours }) =>
      `let a sign-in end ${idleHours === 1 ? 'an hour' : `${idleHours} hours`} after it was used last`,
  },
]

/** Who reads the history need not see a restricted column, or be in a restricted channel: these are not named. */
function columnWords({ before, after }: Of<'columns'>, naming: FactNaming): string {
  const row = (after ?? before) as BoardColumn
  const isHidden = [before, after].some(each => each !== null && each.viewers !== null)
  const column = `${isHidden ? 'a restricted column' : `the column ${row.name}`} of ${naming.where(row.board) ?? 'a board'}`
  if (before === null) return `made ${column}`
  if (after === null) return `deleted ${column}`
  const isSharing = !isSame([before.viewers, before.editors], [after.viewers, after.editors])
  return isSharing ? `changed who sees or edits ${column}` : `changed ${column}`
}

function channelWords({ before, after }: Of<'channels'>, naming: FactNaming): string {
  const row = (after ?? before) as Channel
  const isHidden = [before, after].some(each => each !== null && each.only !== null)
  const channel = `${isHidden ? 'a restricted channel' : `the channel ${row.name}`} of ${naming.team(row.team) ?? 'a team'}`
  if (before === null) return `made ${channel}`
  if (after === null) return `took away ${channel}`
  if (before.archived !== after.archived) return `${after.archived ? 'archived' : 'brought back'} ${channel}`
  return isSame(before.only, after.only) ? `changed ${channel}` : `changed who is in ${channel}`
}
