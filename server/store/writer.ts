import { Transaction } from 'sequelize'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { ok, type Result } from '#core/base/result.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { type Snapshot, type State, workspaceOf } from '#core/state/state.ts'
import { passTo, publish, seeAsBefore, type States } from './states.ts'
import { type Batch, createBatch, flush } from './batch.ts'
import type { Tables } from './tables.ts'

/**
 * The one writer. All writes of the process wait in one queue; those that wait together are written in
 * one transaction, each judged in turn on the state that those before it made, and their rows in as few
 * statements as will do. One that is refused leaves the others untouched; where the rows of one cannot be
 * written, all are written anew one by one, and only that one fails. Nothing is confirmed, and no state is
 * published, before the commit.
 */
export interface Writer {
  readonly tables: Tables
  readonly states: States
  readonly clock: () => Instant
  readonly afterCommit: (() => void)[]
  /** Writes down the starts and ends that have passed in a workspace, before anything else is judged. */
  pass: (workspace: WorkspaceId) => Prepare<void, never>
  /** Told when that could not be written: it is tried again with the next write. */
  fault: (error: unknown) => void
  readonly waiting: Job[]
  running: Promise<void> | null
  /** Whether the last round could not be written at all. */
  isFailing: boolean
}

/** What one write wants: judged without waiting, then its rows. */
export type Prepare<T, E> = (candidates: Candidates) => Result<Prepared<T>, E>

export interface Candidates {
  readonly now: Instant
  /** The workspace as the writes before this one left it. */
  readonly snapshotOf: (workspace: WorkspaceId) => Snapshot | undefined
}

export interface Prepared<T> {
  /** The next state, if the write changes it. */
  readonly state?: State
  /** Puts its rows into the batch of all that is written together: they are in the file once that is flushed. */
  readonly write: (batch: Batch) => Promise<void>
  readonly value: T
  /** The workspace whose starts and ends up to now this write puts into the history. */
  readonly passed?: WorkspaceId
  /** Done once it is committed and published. */
  readonly after?: () => void
}

interface Job {
  readonly prepare: Prepare<unknown, unknown>
  readonly resolve: (result: Result<unknown, unknown>) => void
  readonly reject: (error: unknown) => void
}

/** Past this many a transaction is closed before the next is begun, so that nobody waits for a crowd. */
const mostTogether = 200

export function createWriter(tables: Tables, states: States, clock: () => Instant): Writer {
  const pass = () => () => ok({ value: undefined, write: async () => {} })
  return {
    tables,
    states,
    clock,
    afterCommit: [],
    pass,
    fault: () => {},
    waiting: [],
    running: null,
    isFailing: false,
  }
}

/** Resolves after the commit, or with the refusal; rejects if the rows could not be written. */
export function submit<T, E>(writer: Writer, prepare: Prepare<T, E>): Promise<Result<T, E>> {
  return new Promise((resolve, reject) => {
    writer.waiting.push({ prepare, resolve: resolve as Job['resolve'], reject })
    writer.running ??= drain(writer)
  })
}

/** Resolves when nothing waits any more. */
export const whenIdle = (writer: Writer): Promise<void> => writer.running ?? Promise.resolve()

async function drain(writer: Writer): Promise<void> {
  // One turn later, so that requests that arrive together are written together.
  await new Promise(setImmediate)
  while (writer.waiting.length > 0) {
    const waiting = writer.waiting.splice(0, mostTogether)
    await writeTogether(writer, [...passing(writer), ...waiting])
  }
  writer.running = null
}

/** One job for each workspace in which something is due. */
function passing(writer: Writer): Job[] {
  const now = writer.clock()
  return [...writer.states.published.keys()]
    .filter(workspace => isDue(writer, workspace, now))
    .map(workspace => ({ prepare: writer.pass(workspace), resolve: () => {}, reject: writer.fault }))
}

const isDue = ({ states }: Writer, workspace: WorkspaceId, now: Instant): boolean =>
  (states.published.get(workspace)?.dueAt ?? now + 1) <= now

/** Wakes the writer if something is due; it is written down even if nobody else writes. */
export async function passWhatIsDue(writer: Writer): Promise<void> {
  if (passing(writer).length > 0) await submit(writer, () => ok({ value: undefined, write: async () => {} }))
}

async function writeTogether(writer: Writer, jobs: readonly Job[]): Promise<void> {
  const round = await written(writer, jobs, inOneBatch)
    .catch(() => written(writer, jobs, oneByOne))
    .catch((error: unknown) => {
      for (const job of jobs) job.reject(error)
    })
  writer.isFailing = round === undefined
  if (round === undefined) return
  const { next, passed, now } = round
  for (const workspace of [...next.keys(), ...passed])
    if (passed.has(workspace) || !isDue(writer, workspace, now)) passTo(writer.states, workspace, now)
  for (const state of next.values()) publish(writer.states, state, now)
  for (const each of round.settle) each()
  for (const each of writer.afterCommit) each()
}

/** What comes of writing some jobs: the next states, and who is to be told what once they are published. */
interface Round {
  readonly now: Instant
  readonly next: Map<WorkspaceId, State>
  readonly passed: Set<WorkspaceId>
  readonly settle: (() => void)[]
  readonly transaction: Transaction
}

type Way = (writer: Writer, jobs: readonly Job[], round: Round) => Promise<void>

async function written(writer: Writer, jobs: readonly Job[], way: Way): Promise<Round> {
  const { database } = writer.tables
  return database.transaction({ type: Transaction.TYPES.IMMEDIATE }, async transaction => {
    const round = {
      now: writer.clock(),
      next: new Map(),
      passed: new Set(),
      settle: [],
      transaction,
    } as Round
    await way(writer, jobs, round)
    return round
  })
}

const inOneBatch: Way = async (writer, jobs, round) => {
  const batch = createBatch(round.transaction)
  for (const [index, job] of jobs.entries()) {
    // Whoever only reads does not wait until all are judged.
    if (index > 0) await new Promise(setImmediate)
    const prepared = prepare(writer, job, round)
    if (prepared !== undefined) await prepared.write(batch)
  }
  await flush(batch)
}

/** Each behind a point to go back to. */
const oneByOne: Way = async (writer, jobs, round) => {
  const { transaction, next, passed } = round
  const query = (sql: string) => writer.tables.database.query(sql, { transaction })
  for (const job of jobs) {
    const before = { next: new Map(next), passed: new Set(passed), settled: round.settle.length }
    await query('SAVEPOINT job')
    try {
      const batch = createBatch(transaction)
      await prepare(writer, job, round)?.write(batch)
      await flush(batch)
    } catch (error) {
      await query('ROLLBACK TO job')
      reset(round, before)
      round.settle.push(() => job.reject(error))
    }
    await query('RELEASE job')
  }
}

/** Forgets what a job that failed had prepared. */
function reset(
  { next, passed, settle }: Round,
  before: Pick<Round, 'next' | 'passed'> & { readonly settled: number },
): void {
  next.clear()
  for (const [workspace, state] of before.next) next.set(workspace, state)
  passed.clear()
  for (const workspace of before.passed) passed.add(workspace)
  settle.length = before.settled
}

/** Judges a job on what those before it made; `undefined` where nothing is to be written for it. */
function prepare(writer: Writer, job: Job, round: Round): Prepared<unknown> | undefined {
  const { now, next, passed, settle } = round
  try {
    const snapshotAt = (workspace: WorkspaceId) => candidateOf(writer, { next, now, workspace })
    const result = job.prepare({ now, snapshotOf: snapshotAt })
    if (!result.ok) {
      settle.push(() => job.resolve(result))
      return undefined
    }
    const { state, passed: workspace, value, after } = result.value
    if (state !== undefined) next.set(workspaceOf(state).id, state)
    if (workspace !== undefined) passed.add(workspace)
    settle.push(() => {
      job.resolve({ ok: true, value })
      after?.()
    })
    return result.value
  } catch (error) {
    settle.push(() => job.reject(error))
    return undefined
  }
}

function candidateOf(
  writer: Writer,
  { next, now, workspace }: Pick<Round, 'next' | 'now'> & { workspace: WorkspaceId },
): Snapshot | undefined {
  const state = next.get(workspace) ?? writer.states.published.get(workspace)?.snapshot.state
  if (state === undefined) return undefined
  const snapshot = snapshotOf(state, now)
  seeAsBefore(writer.states, snapshot)
  return snapshot
}
