import type { Topic } from '#contract/topics.ts'
import { rowsBy } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import {
  type AuditCategory,
  type AuditEvent,
  type AuditSubject,
  subjectsOf,
} from '#core/changes/audit-event.ts'
import type { RecordChange, State } from '#core/state/state.ts'
import type { Concern } from '../../store/news.ts'

/** Told in an event: its topics are those that pages know. */
export interface TopicConcern extends Concern {
  readonly topics: readonly Topic[]
}

interface Done {
  readonly state: State
  readonly author: PersonId
  readonly changes: readonly RecordChange[]
  /** Whose access it changes. */
  readonly reached: readonly PersonId[]
  /** Who is told of it besides. */
  readonly notified: readonly PersonId[]
}

/** So many subjects are held against each who listens; of more it would take longer than to ask. */
const subjectsAtMost = 200

/** What a change set tells open pages. */
export function concernsOf({ state, author, changes, reached, notified }: Done): TopicConcern[] {
  const events = subjectsOf(state, changes)
  const found = new Map<string, { topics: readonly Topic[]; subjects: AuditSubject[] }>()
  for (const event of events) {
    const topics = topicsOfEvent(event)
    const key = topics.join(' ')
    const concern = found.get(key) ?? { topics, subjects: [] }
    found.set(key, concern)
    if (concern.subjects.every(each => !isSame(each, event))) concern.subjects.push(subjectOf(event))
    if (found.size + concern.subjects.length > subjectsAtMost) return everything(notified)
  }
  const own = [
    ...reached,
    ...events.flatMap(({ person }) => person ?? []),
    ...holders(state, changes),
    // What is in nobody's history is its author's.
    ...(events.length < changes.length ? [author] : []),
  ]
  return [
    { topics: ['history'], people: [author] },
    ...[...found.values()].map(each => ({ ...each, people: [author] })),
    ...(own.length === 0 ? [] : [{ topics: ['own'] as const, people: [...new Set(own)] }]),
    ...(events.some(isForAll) ? [{ topics: ['workspace'] as const, isAll: true }] : []),
    ...(changes.some(opensTeam) ? [{ topics: ['teams'] as const, isOfMembers: true }] : []),
    ...accessFrom(events).map(above => ({ topics: ['own'] as const, above })),
    ...concerning(notified),
  ]
}

/** So much that everybody asks for everything. */
export const everything = (notified: readonly PersonId[]): TopicConcern[] => [
  { topics: ['own'], isAll: true },
  ...concerning(notified),
]

const concerning = (people: readonly PersonId[]): TopicConcern[] =>
  people.length === 0 ? [] : [{ topics: ['notifications'], people: [...new Set(people)] }]

const categories: Readonly<Record<AuditCategory, Topic>> = {
  sharing: 'access',
  limits: 'access',
  inheritance: 'access',
  places: 'places',
  teams: 'teams',
  people: 'people',
  roles: 'roles',
  looking: 'sessions',
  workspace: 'workspace',
}

function topicsOfEvent({ category, change, place, parent }: AuditEvent): Topic[] {
  const { table } = change
  if (isWrittenRow(change)) return ['rows', 'history', `node:${change.id}`, `within:${parent ?? ''}`]
  const topics: Topic[] = [
    categories[category],
    'history',
    ...(table === 'requests' ? (['requests'] as const) : []),
    ...(table === 'nodes' ? (['places'] as const) : []),
    ...(place === null ? [] : ([`node:${place}`] as const)),
  ]
  return [...new Set(topics)]
}

/** Whether a row is called otherwise, or stands elsewhere on its board: it is what most people do, and no list of places tells it. */
function isWrittenRow({ table, before, after }: RecordChange): boolean {
  if (table !== 'nodes' || before === null || after?.kind !== 'row') return false
  const isSame = ([key, value]: readonly [string, unknown]) =>
    writtenOfRows.has(key) || value === before[key as keyof typeof before]
  return Object.entries(after).every(isSame)
}

const writtenOfRows: ReadonlySet<string> = new Set(['name', 'order', 'section'])

const subjectOf = ({ category, place, person, team, byAddress, parent }: AuditEvent): AuditSubject => ({
  category,
  place,
  person,
  team,
  byAddress,
  parent,
})

const isSame = (a: AuditSubject, b: AuditSubject): boolean =>
  a.category === b.category &&
  a.place === b.place &&
  a.person === b.person &&
  a.team === b.team &&
  a.byAddress === b.byAddress

/** Those who hold a role that is another one now. */
const holders = (state: State, changes: readonly RecordChange[]): PersonId[] =>
  changes.flatMap(({ table, id }) =>
    table === 'roles' ? rowsBy(state.holdings, 'role', id).map(each => each.person) : [],
  )

/** Whether a team becomes known to all members, or is no more. */
const opensTeam = ({ table, before, after }: RecordChange): boolean =>
  table === 'teams' && (before === null || after === null || before.joining !== after.joining)

/** The places from which on access is another one, each once. */
const accessFrom = (events: readonly AuditEvent[]): NodeId[] => [
  ...new Set(
    events.flatMap(({ category, place }) =>
      place !== null && categories[category] === 'access' ? [place] : [],
    ),
  ),
]

/** The name of the workspace, its levels and ceilings stand on everybody's pages. */
const isForAll = ({ change: { table } }: AuditEvent): boolean => table === 'workspaces' || table === 'levels'
