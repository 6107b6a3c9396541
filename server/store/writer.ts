import { randomUUID } from 'node:crypto'
import type { Transaction } from 'sequelize'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { ok, refused, type Result } from '#core/base/result.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { type Snapshot, type State, workspaceOf } from '#core/state/state.ts'
import { type Commit, rowsOnly } from './commit.ts'
import { beginWriting } from './database.ts'
import { loadState } from './loading.ts'
import { append, createCommitLog, type Log, type LogEntry, publishEntry } from './log.ts'
import type { News } from './news.ts'
import { type Batch, createBatch, flush, putChanges, unmet } from './rows.ts'
import { caughtUp, dueAfter, passedAfter, seeAsBefore, type States } from './states.ts'
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
  /** What was written, for all who follow it. */
  readonly log: Log
  /** Writes down the starts and ends that have passed in a workspace, before anything else is judged. */
  pass: (workspace: WorkspaceId) => Prepare<void, never>
  /** Told when that could not be written: it is tried again with the next write. */
  fault: (error: unknown) => void
  /** What every write is answered where another process writes. */
  refusal: (() => Error) | null
  readonly waiting: Job[]
  running: Promise<void> | null
  /** Whether the last round could not be written at all. */
  isFailing: boolean
}

/** What one write wants: judged without waiting, and what it comes to then. */
export type Prepare<T, E> = (candidates: Candidates) => Result<Commit<T, E>, E>

export interface Candidates {
  readonly now: Instant
  /** The workspace as the writes before this one left it. */
  readonly snapshotOf: (workspace: WorkspaceId) => Snapshot | undefined
}

interface Job {
  readonly prepare: Prepare<unknown, unknown>
  readonly resolve: (result: Result<unknown, unknown>) => void
  readonly reject: (error: unknown) => void
}

/** Past this many a transaction is closed before the next is begun, so that nobody waits for a crowd. */
const mostTogether = 200

export function createWriter(tables: Tables, states: States, clock: () => Instant): Writer {
  return {
    tables,
    states,
    clock,
    log: createCommitLog(tables.log),
    pass: () => () => ok({ value: undefined }),
    fault: () => {},
    refusal: null,
    waiting: [],
    running: null,
    isFailing: false,
  }
}

/** Resolves after the commit, or with the refusal; rejects if the rows could not be written. */
export function submit<T, E>(writer: Writer, prepare: Prepare<T, E>): Promise<Result<T, E>> {
  if (writer.refusal !== null) return Promise.reject(writer.refusal())
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
  (states.heads.get(workspace)?.dueAt ?? now + 1) <= now

/** Wakes the writer if something is due; it is written down even if nobody else writes. */
export async function passWhatIsDue(writer: Writer): Promise<void> {
  if (passing(writer).length > 0) await submit(writer, () => ok({ value: undefined }))
}

async function writeTogether(writer: Writer, jobs: readonly Job[]): Promise<void> {
  const round = await written(writer, jobs, inOneBatch)
    .catch(() => written(writer, jobs, oneByOne))
    .catch((error: unknown) => {
      for (const job of jobs) job.reject(error)
    })
  writer.isFailing = round === undefined
  if (round === undefined) return
  const { entry, next } = round
  if (entry !== undefined) publishEntry(writer.log, { ...entry, states: next })
  for (const each of round.settle) each()
}

/** What comes of writing some jobs: the next states, what is to be heard, and who is to be answered once it is. */
interface Round {
  readonly now: Instant
  readonly next: Map<WorkspaceId, State>
  readonly news: News[]
  readonly settle: (() => void)[]
  readonly transaction: Transaction
  entry: LogEntry | undefined
}

type Way = (writer: Writer, jobs: readonly Job[], round: Round) => Promise<void>

async function written(writer: Writer, jobs: readonly Job[], way: Way): Promise<Round> {
  return beginWriting(writer.tables.database, async transaction => {
    const now = writer.clock()
    const round: Round = { now, next: new Map(), news: [], settle: [], transaction, entry: undefined }
    await way(writer, jobs, round)
    const { news } = round
    await noteDue(writer, round)
    if (news.length > 0)
      round.entry = await append(writer.log, { id: randomUUID(), at: now, news }, transaction)
    return round
  })
}

/** Writes down when something is due next in what was written, where that is another time: others read it there. */
async function noteDue({ tables, states }: Writer, { now, next, news, transaction }: Round): Promise<void> {
  const passed = new Set(news.flatMap(each => (each.of === 'passed' ? [each.workspace] : [])))
  for (const workspace of new Set([...next.keys(), ...passed])) {
    const head = states.heads.get(workspace)
    const state = next.get(workspace) ?? states.published.get(workspace)?.snapshot.state
    if (state === undefined) continue
    const at = passedAfter(head, { at: now, isPassed: passed.has(workspace) })
    const dueAt = dueAfter(state, at)
    if (passed.has(workspace) || dueAt !== head?.dueAt)
      await tables.appliedTransitions.upsert({ workspace, at, dueAt }, { transaction })
  }
}

const inOneBatch: Way = async (writer, jobs, round) => {
  const batch = createBatch(writer.tables, round.transaction)
  for (const [index, job] of jobs.entries()) {
    // Whoever only reads does not wait until all are judged.
    if (index > 0) await new Promise(setImmediate)
    await writeJob(writer, { job, round, batch })
  }
  await flush(batch)
}

/** Each behind a point to go back to. */
const oneByOne: Way = async (writer, jobs, round) => {
  const { transaction } = round
  const query = (sql: string) => writer.tables.database.query(sql, { transaction })
  for (const job of jobs) {
    const before = { next: new Map(round.next), news: round.news.length, settled: round.settle.length }
    await query('SAVEPOINT job')
    try {
      const batch = createBatch(writer.tables, transaction)
      await writeJob(writer, { job, round, batch })
      await flush(batch)
    } catch (error) {
      await query('ROLLBACK TO SAVEPOINT job')
      reset(round, before)
      round.settle.push(() => job.reject(error))
    }
    await query('RELEASE SAVEPOINT job')
  }
}

/** Forgets what a job that failed had prepared. */
function reset(
  { next, news, settle }: Round,
  before: Pick<Round, 'next'> & { readonly news: number; readonly settled: number },
): void {
  next.clear()
  for (const [workspace, state] of before.next) next.set(workspace, state)
  news.length = before.news
  settle.length = before.settled
}

interface Writing {
  readonly job: Job
  readonly round: Round
  readonly batch: Batch
}

/** Judges a job on what those before it made, and puts what it comes to into the batch. Rejects where its rows cannot be written. */
async function writeJob(writer: Writer, { job, round, batch }: Writing): Promise<void> {
  const { next, news, settle } = round
  const result = judged(writer, job, round)
  if (result === undefined) return
  if (!result.ok) {
    settle.push(() => job.resolve(result))
    return
  }
  const { value, state, conditions = [], rows = [] } = result.value
  const failed = await unmet(batch, conditions)
  if (failed !== undefined) {
    settle.push(() => job.resolve({ ok: false, error: failed.orElse }))
    return
  }
  if (state !== undefined) next.set(workspaceOf(state).id, state)
  news.push(...(result.value.news ?? []))
  settle.push(() => job.resolve({ ok: true, value }))
  await putChanges(batch, rows)
}

/** `undefined` where it could not be judged: that is nobody else's. */
function judged(
  writer: Writer,
  job: Job,
  { now, next, settle }: Round,
): Result<Commit<unknown, unknown>, unknown> | undefined {
  try {
    return job.prepare({ now, snapshotOf: workspace => candidateOf(writer, { next, now, workspace }) })
  } catch (error) {
    settle.push(() => job.reject(error))
    return undefined
  }
}

/** So often writes may come between what was read and its place. */
const outrunAtMost = 100

/**
 * Reads a workspace anew while others use and change it. It takes its place between two writes: those before it are in it,
 * those after it stand on it. Where others are always faster it is left for another time.
 */
export async function readAnew(writer: Writer, workspace: WorkspaceId): Promise<void> {
  const { states, tables } = writer
  let state = await loadState(tables, workspace)
  for (let tries = 0; tries < outrunAtMost; tries += 1) {
    state = await caughtUp(states, state)
    const fresh = state
    const placed = await submit<undefined, 'behind'>(writer, candidates => {
      const now = candidates.snapshotOf(workspace)?.state.revision
      if (now === undefined) return ok({ value: undefined })
      if (now !== fresh.revision) return refused('behind')
      return ok({ value: undefined, state: fresh, news: [{ of: 'read-anew', workspace }] })
    })
    if (placed.ok) return
  }
}

/** Notes when something of a workspace is due, where nobody had. */
export const noteDueOf = (writer: Writer, workspace: WorkspaceId): Promise<unknown> =>
  submit(writer, () => {
    const { passedTo: at = 0, dueAt = null } = writer.states.heads.get(workspace) ?? {}
    return ok(
      rowsOnly({
        kind: 'put',
        table: 'appliedTransitions',
        rows: [{ workspace, at, dueAt }],
        replaced: ['at', 'dueAt'],
      }),
    )
  })

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
