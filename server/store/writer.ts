import { Transaction } from 'sequelize'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { ok, type Result } from '#core/base/result.ts'
import { momentOf } from '#core/state/moment.ts'
import { type Moment, type State, workspaceOf } from '#core/state/state.ts'
import { passTo, publish, type States } from './states.ts'
import type { Tables } from './tables.ts'

/**
 * The one writer. All writes of the process wait in one queue; those that wait together are written in
 * one transaction, each judged in turn on the state that those before it made. One that is refused or
 * fails leaves the others untouched. Nothing is confirmed, and no state is published, before the commit.
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
}

/** What one write wants: judged without waiting, then its rows. */
export type Prepare<T, E> = (candidates: Candidates) => Result<Prepared<T>, E>

export interface Candidates {
  readonly now: Instant
  /** The workspace as the writes before this one left it. */
  readonly momentOf: (workspace: WorkspaceId) => Moment | undefined
}

export interface Prepared<T> {
  /** The next state, if the write changes it. */
  readonly state?: State
  readonly write: (transaction: Transaction) => Promise<void>
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
  return { tables, states, clock, afterCommit: [], pass, fault: () => {}, waiting: [], running: null }
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
  const now = writer.clock()
  const next = new Map<WorkspaceId, State>()
  const passed = new Set<WorkspaceId>()
  const settle: (() => void)[] = []
  try {
    await writer.tables.database.transaction({ type: Transaction.TYPES.IMMEDIATE }, async transaction => {
      for (const job of jobs) settle.push(await writeOne(writer, { job, next, passed, now, transaction }))
    })
  } catch (error) {
    for (const job of jobs) job.reject(error)
    return
  }
  for (const workspace of [...next.keys(), ...passed])
    if (passed.has(workspace) || !isDue(writer, workspace, now)) passTo(writer.states, workspace, now)
  for (const state of next.values()) publish(writer.states, state, now)
  for (const each of settle) each()
  for (const each of writer.afterCommit) each()
}

interface Turn {
  readonly job: Job
  readonly next: Map<WorkspaceId, State>
  readonly passed: Set<WorkspaceId>
  readonly now: Instant
  readonly transaction: Transaction
}

async function writeOne(writer: Writer, { job, next, passed, now, transaction }: Turn): Promise<() => void> {
  const query = (sql: string) => writer.tables.database.query(sql, { transaction })
  await query('SAVEPOINT job')
  try {
    const result = job.prepare({ now, momentOf: workspace => candidateOf(writer, { next, now, workspace }) })
    if (result.ok) {
      await result.value.write(transaction)
      const { state, passed: workspace } = result.value
      if (state !== undefined) next.set(workspaceOf(state).id, state)
      if (workspace !== undefined) passed.add(workspace)
    }
    await query('RELEASE job')
    return () => {
      job.resolve(result.ok ? { ok: true, value: result.value.value } : result)
      if (result.ok) result.value.after?.()
    }
  } catch (error) {
    await query('ROLLBACK TO job')
    await query('RELEASE job')
    return () => job.reject(error)
  }
}

function candidateOf(
  writer: Writer,
  { next, now, workspace }: Pick<Turn, 'next' | 'now'> & { workspace: WorkspaceId },
): Moment | undefined {
  const state = next.get(workspace) ?? writer.states.published.get(workspace)?.moment.state
  return state === undefined ? undefined : momentOf(state, now)
}
