import { allRows, rowsBy } from '../base/collection.ts'
import type { PersonId } from '../base/ids.ts'
import type { Instant, Span } from '../base/instant.ts'
import { type Table, valuesOf } from '../base/table.ts'
import { type AccessRequest, goesOnAfter, remindAfter } from '../people/asking.ts'
import type { Membership, Person } from '../people/person.ts'
import type { Grant } from '../rules/entry.ts'
import { momentOf, nextAfter, nextBound, type Sorted, sortedOnce } from '../state/moment.ts'
import {
  applyChanges,
  type Moment,
  type RecordChange,
  type State,
  type TableName,
  workspaceOf,
} from '../state/state.ts'
import { deletionOf } from './edits/delete.ts'
import type { Touching } from './touched.ts'

/** The author of what time does by itself. */
export const theWorkspace = 'workspace' as PersonId

/** One instant at which something began or ended by itself. */
export interface Passing {
  readonly at: Instant
  readonly state: State
  /** What ended goes from the state; what began, and people whose time is over, stay as they are. */
  readonly changes: readonly RecordChange[]
  /** What the effect is read from. */
  readonly touching: Touching
}

/** Ended entries count nowhere, so they go; a person whose time is over stays for what it made. */
const timed = ['grants', 'limits', 'memberships', 'holdings', 'persons'] as const satisfies TableName[]

/** How long a place lies in the bin before it is deleted for good. */
export const binTime: Instant = 30 * 86_400_000

/** How long before an end those concerned are told. */
export const nearness: Instant = 7 * 86_400_000

/** A grant, membership or person whose end comes near. */
export type Nearing = Extract<RecordChange, { table: 'grants' | 'memberships' | 'persons' }>

/** What comes within `nearness` of its end after `since` and up to `until`; not what began nearer to it. */
export function nearingIn(state: State, since: Instant, until: Instant): Nearing[] {
  const nearing: Nearing[] = []
  for (const { table, row } of endingIn(state)) {
    const toldAt = toldAtOf(row)
    if (toldAt !== null && toldAt > since && toldAt <= until)
      nearing.push({ table, id: row.id, before: row, after: row } as unknown as Nearing)
  }
  return nearing
}

/** A request for access that nobody has answered for a while. */
export interface Waiting {
  readonly request: AccessRequest
  readonly step: 'remind' | 'go on'
}

/** Requests for access of which those who may decide are told again after `since` and up to `until`. */
export const waitingIn = (state: State, since: Instant, until: Instant): Waiting[] =>
  allRows(state.accessRequests).flatMap(request =>
    stepsOf(request)
      .filter(({ at }) => at > since && at <= until)
      .map(({ step }) => ({ request, step })),
  )

const stepsOf = ({ at, declined }: AccessRequest) =>
  declined !== null
    ? []
    : ([
        { step: 'remind', at: at + remindAfter },
        { step: 'go on', at: at + goesOnAfter },
      ] as const)

/** The next instant after `since` at which something starts, ends, other seats count, or the bin is emptied of something. */
function nextPassing(state: State, since: Instant): Instant {
  const plannedAt = workspaceOf(state).seatsNext?.from ?? Number.POSITIVE_INFINITY
  let next = Math.min(nextBound(state, since), plannedAt > since ? plannedAt : Number.POSITIVE_INFINITY)
  for (const { binned } of rowsBy(state.nodes, 'bin', 'bin')) {
    const at = (binned?.at ?? 0) + binTime
    if (at > since && at < next) next = at
  }
  return next
}

/** The next instant after `since` at which something passes or comes near its end. */
export function nextDue(state: State, since: Instant): Instant {
  const told = ending.map(table =>
    nextAfter(since, sortedOnce(toldTimes[table], state[table].rows as Table<string, Ending>, toldOf)),
  )
  const steps = allRows(state.accessRequests).flatMap(request => stepsOf(request).map(each => each.at))
  return Math.min(nextPassing(state, since), ...told, ...steps.filter(at => at > since))
}

const ending = ['grants', 'memberships', 'persons'] as const satisfies readonly Nearing['table'][]
const toldTimes: Readonly<Record<Nearing['table'], Sorted>> = {
  grants: new WeakMap(),
  memberships: new WeakMap(),
  persons: new WeakMap(),
}
const toldOf = (row: Ending) => [toldAtOf(row)]

type Ending = Grant | Membership | Person

function* endingIn(state: State): Generator<{ table: Nearing['table']; row: Ending }> {
  for (const row of valuesOf(state.grants.rows)) yield { table: 'grants', row }
  for (const row of valuesOf(state.memberships.rows)) yield { table: 'memberships', row }
  for (const row of valuesOf(state.persons.rows)) yield { table: 'persons', row }
}

function toldAtOf(row: Ending): Instant | null {
  const begunAt =
    'at' in row ? row.at : 'since' in row ? row.since : (row.joinedAt ?? Number.POSITIVE_INFINITY)
  const toldAt = row.until === null ? null : row.until - nearness
  return toldAt === null || toldAt <= begunAt ? null : toldAt
}

/** Every start, end and deletion from the bin that passes after `since` and up to `until`, oldest first. */
export function passingsOf(state: State, since: Instant, until: Instant): Passing[] {
  const passings: Passing[] = []
  let current = state
  for (let at = nextPassing(current, since); at <= until; at = nextPassing(current, at)) {
    const passing = passingAt(momentOf(current, at))
    passings.push(passing)
    current = passing.state
  }
  return passings
}

function passingAt({ state, at }: Moment): Passing {
  const touched: RecordChange[] = []
  for (const table of timed)
    for (const row of valuesOf<string, Span & { readonly id: string }>(state[table].rows)) {
      const isEnd = row.until !== null && row.until <= at
      if (isEnd && (table !== 'persons' || row.until === at))
        touched.push({ table, id: row.id, before: row, after: table === 'persons' ? row : null } as never)
      else if (row.from === at) touched.push({ table, id: row.id, before: row, after: row } as never)
    }
  touched.push(...leavingBin(state, at), ...withSeatsPlanned(state, at))
  const next = applyChanges(state, touched)
  // The last instant before: what ends now still counted then, what begins now did not yet.
  const touching = { changes: touched, before: momentOf(state, at - 1), after: momentOf(next, at) }
  return { at, state: next, changes: touched, touching }
}

function withSeatsPlanned(state: State, at: Instant): RecordChange[] {
  const before = workspaceOf(state)
  const { seatsNext } = before
  if (seatsNext === null || seatsNext.from > at) return []
  const after = { ...before, seats: seatsNext.seats, seatsNext: null }
  return [{ table: 'workspaces', id: before.id, before, after }]
}

/** Once each, though one lies in another: what ends with it (grants, limits) is not told twice. */
function leavingBin(state: State, at: Instant): RecordChange[] {
  const byRecord = new Map<string, RecordChange>()
  for (const { id, binned } of rowsBy(state.nodes, 'bin', 'bin'))
    if ((binned?.at ?? 0) + binTime <= at)
      for (const change of deletionOf(state, id)) byRecord.set(`${change.table} ${change.id}`, change)
  return [...byRecord.values()]
}
