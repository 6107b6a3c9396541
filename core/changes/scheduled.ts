import { type Collection, rowOf } from '../base/collection.ts'
import type { TimeRange } from '../base/agenda.ts'
import type { PersonId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import type { AccessRequest } from '../people/request.ts'
import { datesIn, nextOf } from '../state/dates.ts'
import type { Rows, TableName } from '../state/kinds.ts'
import { goneWith } from '../state/naming.ts'
import type { DateKind } from '../state/shape.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { applyChanges, type Snapshot, type RecordChange, type State, workspaceOf } from '../state/state.ts'
import type { Transition } from './affected-scope.ts'

/** The author of what time does by itself. */
export const theWorkspace = 'workspace' as PersonId

/** One instant at which something began or ended by itself. */
export interface ScheduledTransition {
  readonly at: Instant
  readonly state: State
  /** What ended goes from the state; what began, and people whose time is over, stay as they are. */
  readonly changes: readonly RecordChange[]
  /** What the effect is read from. */
  readonly transition: Transition
}

/** A grant, membership or person whose end comes near. */
export type Nearing = Extract<RecordChange, { table: 'grants' | 'memberships' | 'persons' }>

/** What comes within `nearness` of its end after `since` and up to `until`; not what began nearer to it. */
export const nearingIn = (state: State, since: Instant, until: Instant): Nearing[] =>
  rowsAt(state, 'nearings', { after: since, upTo: until }).map(
    ({ table, row }) => ({ table, id: row.id, before: row, after: row }) as unknown as Nearing,
  )

/** A request for access that nobody has answered for a while. */
export interface Waiting {
  readonly request: AccessRequest
  readonly step: 'remind' | 'go on'
}

/** Requests for access of which those who may decide are told again after `since` and up to `until`. */
export const waitingIn = (state: State, since: Instant, until: Instant): Waiting[] =>
  steps.flatMap(({ kind, step }) =>
    rowsAt(state, kind, { after: since, upTo: until }).map(({ row }) => ({
      request: row as AccessRequest,
      step,
    })),
  )

const steps = [
  { kind: 'reminders', step: 'remind' },
  { kind: 'goingsOn', step: 'go on' },
] as const

/** The rows of which something of a kind comes in a range of time, by when it comes. */
function rowsAt(state: State, kind: DateKind, range: TimeRange): AtDate[] {
  const found: AtDate[] = []
  for (const { table, id } of datesIn(state.dates, kind, range)) {
    const rows = state[table] as unknown as Collection<AtDate['row']>
    found.push({ table, row: rowOf(rows, id as never) as AtDate['row'] })
  }
  return found
}

interface AtDate {
  readonly table: TableName
  readonly row: Rows[TableName]
}

/** The next instant after `since` at which something starts, ends, other seats count, or the bin is emptied of something. */
function nextPassing(state: State, since: Instant): Instant {
  const plannedAt = workspaceOf(state).seatsNext?.from ?? Number.POSITIVE_INFINITY
  const next = nextOf(state.dates, ['starts', 'ends', 'leavings', 'binEnds'], since)
  return plannedAt > since ? Math.min(next, plannedAt) : next
}

/** The next instant after `since` at which something passes or comes near its end. */
export const nextDue = (state: State, since: Instant): Instant =>
  Math.min(
    nextPassing(state, since),
    nextOf(state.dates, ['nearings', ...steps.map(each => each.kind)], since),
  )

/** Every start, end and deletion from the bin that passes after `since` and up to `until`, oldest first. */
export function scheduledTransitionsOf(state: State, since: Instant, until: Instant): ScheduledTransition[] {
  const passings: ScheduledTransition[] = []
  let current = state
  for (let at = nextPassing(current, since); at <= until; at = nextPassing(current, at)) {
    const passing = passingAt(snapshotOf(current, at))
    passings.push(passing)
    current = passing.state
  }
  return passings
}

function passingAt({ state, at }: Snapshot): ScheduledTransition {
  const ending = rowsAt(state, 'ends', { after: Number.NEGATIVE_INFINITY, upTo: at })
  const now = { after: at - 1, upTo: at }
  const isEnding = new Set(ending.map(({ row }) => row))
  const passing = [
    ...ending.map(({ table, row }) => ({ table, id: row.id, before: row, after: null })),
    ...[...rowsAt(state, 'starts', now), ...rowsAt(state, 'leavings', now)]
      .filter(({ row }) => !isEnding.has(row))
      .map(({ table, row }) => ({ table, id: row.id, before: row, after: row })),
  ] as RecordChange[]
  const order = Object.keys(state.kinds)
  // What names others is told before what it names: a grant of somebody before the person.
  const affected = passing.sort((a, b) => order.indexOf(b.table) - order.indexOf(a.table))
  affected.push(...leavingBin(state, at), ...withSeatsPlanned(state, at))
  const next = applyChanges(state, affected)
  // The last instant before: what ends now still counted then, what begins now did not yet.
  const transition = { changes: affected, before: snapshotOf(state, at - 1), after: snapshotOf(next, at) }
  return { at, state: next, changes: affected, transition }
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
  for (const { row } of rowsAt(state, 'binEnds', { after: Number.NEGATIVE_INFINITY, upTo: at }))
    for (const change of goneWith(state, 'nodes', row)) byRecord.set(`${change.table} ${change.id}`, change)
  return [...byRecord.values()]
}
