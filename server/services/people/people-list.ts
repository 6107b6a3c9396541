import type { PageView } from '#contract/views/page.ts'
import type { PersonView } from '#contract/views/people.ts'
import type { PeopleQuery } from '#contract/requests.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { Instant } from '#core/base/instant.ts'
import { takesSeat } from '#core/access/seats.ts'
import { isActive } from '#core/access/subject.ts'
import { knowsTeam } from '#core/changes/context.ts'
import type { Person } from '#core/people/person.ts'
import type { RoleId, TeamId } from '#core/base/ids.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { lastSeenOf } from '../../store/sessions.ts'
import type { Parts } from '../../parts.ts'
import { type Asker, nameOf } from '../viewer/asker.ts'
import { peopleFor, personTeams, personView } from './people.ts'
import { managerOf } from '../viewer/managing.ts'

/**
 * The list of people, looked through and sorted on the records; views are made for the page that is asked for
 * only, so that the first rows of twenty thousand come as fast as those of twenty.
 */
export function peopleView(parts: Parts, asker: Asker, query: PeopleQuery): PageView<PersonView> {
  const found = listed(parts, asker, query)
  const start = Number(query.from ?? 0)
  const end = start + pageSize
  return {
    revision: asker.snapshot.state.revision,
    total: found.length,
    items: found.slice(start, end).map(person => personView(parts, asker, person)),
    next: end < found.length ? end : null,
  }
}

const pageSize = 100

/** The ids of all that are shown, in the order in which they are. */
export const peopleIds = (parts: Parts, asker: Asker, query: PeopleQuery): string[] =>
  listed(parts, asker, query).map(person => person.id)

export function listed(parts: Parts, asker: Asker, query: PeopleQuery): Person[] {
  const looking: Looking = { parts, asker, now: parts.clock(), keeps: managerOf(asker) }
  const tests = testsFor(looking, query)
  const found = peopleFor(asker).filter(person => tests.every(test => test(person)))
  const { sort = 'name', down } = query
  if (sort === 'name') return down === undefined ? found : found.reverse()
  const sign = down === undefined ? 1 : -1
  const key = sortKeys[sort]
  const isTold = (person: Person) => !standingSorts.has(sort) || looking.keeps(person)
  const keyed = found.map(person => ({ person, key: isTold(person) ? key(looking, person) : never }))
  // They come by name, and stay so where the keys are alike.
  keyed.sort((a, b) => sign * compared(a.key, b.key))
  return keyed.map(each => each.person)
}

interface Looking {
  readonly parts: Parts
  readonly asker: Asker
  readonly now: Instant
  /** Only of those whom the asker looks after is their status told, in any way. */
  readonly keeps: (person: Person) => boolean
}

type Test = (person: Person) => boolean

function testsFor(looking: Looking, query: PeopleQuery): Test[] {
  const { asker } = looking
  const { find, kept, as, status, role, team, only } = query
  const tests: Test[] = []
  if (kept !== undefined) tests.push(looking.keeps)
  if (as !== undefined) tests.push(person => person.kind === as)
  if (status !== undefined) tests.push(person => standings[status](looking, person))
  if (team !== undefined) tests.push(isIn(asker, team as TeamId))
  const words = (find ?? '').toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length > 0) tests.push(person => words.every(word => textOf(asker, person).includes(word)))
  if (role !== undefined) tests.push(person => looking.keeps(person) && holds(asker, person, role))
  for (const mark of (only ?? '').split(',')) {
    const fits = marks[mark as Mark] as (typeof marks)[Mark] | undefined
    if (fits !== undefined) tests.push(person => looking.keeps(person) && fits(looking, person))
  }
  return tests
}

const holds = ({ snapshot }: Asker, { id }: Person, role: string): boolean =>
  rowsBy(snapshot.state.holdings, 'person', id).some(each => each.role === role)

function isIn({ snapshot, person: reader }: Asker, id: TeamId): Test {
  const team = rowOf(snapshot.state.teams, id)
  if (team === undefined || !knowsTeam(snapshot, reader, id)) return () => false
  const people = new Set(rowsBy(snapshot.state.memberships, 'team', id).map(each => each.person))
  return ({ id, kind }) => people.has(id) || (team.joining === 'everyone' && kind === 'member')
}

/** What a person is found by. Teams that the asker does not know of are not among it. */
function textOf({ snapshot, person: reader }: Asker, person: Person): string {
  const { name, mail, handle, title, department } = person
  const teams = rowsBy(snapshot.state.memberships, 'person', person.id)
    .filter(({ team }) => knowsTeam(snapshot, reader, team))
    .map(({ team }) => rowOf(snapshot.state.teams, team)?.name ?? '')
  return [name, mail, handle === null ? '' : `@${handle}`, title, department, ...teams]
    .join('\n')
    .toLowerCase()
}

const isOverAt = ({ until }: Person, now: Instant) => until !== null && until <= now

const standings: Readonly<
  Record<NonNullable<PeopleQuery['status']>, (looking: Looking, person: Person) => boolean>
> = {
  active: ({ asker }, person) => isActive(asker.snapshot, person),
  invited: (_, person) => person.status === 'invited',
  suspended: (_, person) => person.status === 'suspended',
  coming: ({ now }, person) => person.status === 'active' && person.from !== null && person.from > now,
  over: ({ now }, person) => person.status !== 'invited' && isOverAt(person, now),
}

const day = 86_400_000

/** What stands out about somebody. */
const marks = {
  'ends soon': ({ now }: Looking, { until }: Person) =>
    until !== null && until > now && until - now < 30 * day,
  'long absent': ({ parts, asker, now }: Looking, person: Person) =>
    isActive(asker.snapshot, person) &&
    now - (lastSeenOf(parts.sessions, asker.workspace, person.id) ?? person.joinedAt ?? now) > 30 * day,
  'dead link': ({ asker, now }: Looking, { id }: Person) =>
    rowsBy(asker.snapshot.state.invitations, 'person', id).some(each => each.until <= now),
  'no contact': ({ asker }: Looking, { kind, contact }: Person) => {
    const turnedTo = contact === null ? undefined : rowOf(asker.snapshot.state.persons, contact)
    return kind === 'guest' && (turnedTo === undefined || !isActive(asker.snapshot, turnedTo))
  },
  'no second step': ({ parts }: Looking, { account }: Person) =>
    account !== null && !parts.secured.has(account),
  'not confirmed': ({ parts }: Looking, { account }: Person) =>
    account !== null && parts.unproven.has(account),
  'takes a seat': ({ asker }: Looking, person: Person) => takesSeat(asker.snapshot, person),
  'in no team': ({ asker }: Looking, { id }: Person) =>
    rowsBy(asker.snapshot.state.memberships, 'person', id).length === 0,
} satisfies Readonly<Record<string, (looking: Looking, person: Person) => boolean>>

type Mark = keyof typeof marks

type Key = string | number
const never = Number.POSITIVE_INFINITY

const sortKeys: Readonly<
  Record<Exclude<NonNullable<PeopleQuery['sort']>, 'name'>, (looking: Looking, person: Person) => Key>
> = {
  handle: (_, { handle }) => handle ?? never,
  mail: (_, { mail }) => mail,
  role: ({ asker }, { id }) =>
    firstOf(rowsBy(asker.snapshot.state.holdings, 'person', id), ({ role }) => roleName(asker, role)),
  teams: ({ asker }, person) =>
    firstOf(
      personTeams(asker, person).filter(team => team.lead || !team.isForAll),
      team => team.name,
    ),
  department: (_, { department }) => department || never,
  contact: ({ asker }, { contact }) => (contact === null ? never : nameOf(asker.snapshot, contact)),
  inviter: ({ asker }, { invitedBy }) => (invitedBy === null ? never : nameOf(asker.snapshot, invitedBy)),
  joined: (_, { joinedAt }) => joinedAt ?? never,
  active: ({ parts, asker }, { id }) => -(lastSeenOf(parts.sessions, asker.workspace, id) ?? 0),
  ends: (_, { until }) => until ?? never,
  status: (_, { status }) => status,
  seat: ({ asker }, person) => (takesSeat(asker.snapshot, person) ? 0 : 1),
  link: ({ asker }, { id }) => rowsBy(asker.snapshot.state.invitations, 'person', id)[0]?.until ?? never,
}

/** The least of some names; what has none comes last. */
function firstOf<Row>(rows: readonly Row[], nameOf: (row: Row) => string): Key {
  const [first] = rows.map(nameOf).sort(compareWords)
  return first ?? never
}

const roleName = ({ snapshot }: Asker, id: RoleId): string => rowOf(snapshot.state.roles, id)?.name ?? ''

/** What somebody's status tells is no order for those who may not know it. */
const standingSorts: ReadonlySet<string> = new Set([
  'active',
  'ends',
  'status',
  'role',
  'inviter',
  'seat',
  'link',
])

/** Words come before what has none. */
function compared(a: Key, b: Key): number {
  if (typeof a === 'string') return typeof b === 'string' ? compareWords(a, b) : -1
  return typeof b === 'string' ? 1 : a === b ? 0 : a < b ? -1 : 1
}
