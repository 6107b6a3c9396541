import { Transaction } from 'sequelize'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { type Result } from '#core/base/result.ts'
import { momentOf } from '#core/state/moment.ts'
import { type Moment, type State, workspaceOf } from '#core/state/state.ts'
import { publish, type States } from './states.ts'
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
}

interface Job {
  readonly prepare: Prepare<unknown, unknown>
  readonly resolve: (result: Result<unknown, unknown>) => void
  readonly reject: (error: unknown) => void
}

/** Past this many a transaction is closed before the next is begun, so that nobody waits for a crowd. */
const mostTogether = 200

export function createWriter(tables: Tables, states: States, clock: () => Instant): Writer {
  return { tables, states, clock, afterCommit: [], waiting: [], running: null }
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
  while (writer.waiting.length > 0) await writeTogether(writer, writer.waiting.splice(0, mostTogether))
  writer.running = null
}

async function writeTogether(writer: Writer, jobs: readonly Job[]): Promise<void> {
  const now = writer.clock()
  const next = new Map<WorkspaceId, State>()
  const settle: (() => void)[] = []
  try {
    await writer.tables.database.transaction({ type: Transaction.TYPES.IMMEDIATE }, async transaction => {
      for (const job of jobs) settle.push(await writeOne(writer, { job, next, now, transaction }))
    })
  } catch (error) {
    for (const job of jobs) job.reject(error)
    return
  }
  for (const state of next.values()) publish(writer.states, state, now)
  for (const each of settle) each()
  for (const each of writer.afterCommit) each()
}

interface Turn {
  readonly job: Job
  readonly next: Map<WorkspaceId, State>
  readonly now: Instant
  readonly transaction: Transaction
}

async function writeOne(writer: Writer, { job, next, now, transaction }: Turn): Promise<() => void> {
  const query = (sql: string) => writer.tables.database.query(sql, { transaction })
  await query('SAVEPOINT job')
  try {
    const result = job.prepare({ now, momentOf: workspace => candidateOf(writer, { next, now, workspace }) })
    if (result.ok) {
      await result.value.write(transaction)
      const { state } = result.value
      if (state !== undefined) next.set(workspaceOf(state).id, state)
    }
    await query('RELEASE job')
    return () => job.resolve(result.ok ? { ok: true, value: result.value.value } : result)
  } catch (error) {
    await query('ROLLBACK TO job')
    await query('RELEASE job')
    return () => job.reject(error)
  }
}

function candidateOf(
  writer: Writer,
  { next, now, workspace }: { next: Turn['next']; now: Instant; workspace: WorkspaceId },
): Moment | undefined {
  const state = next.get(workspace) ?? writer.states.published.get(workspace)?.moment.state
  return state === undefined ? undefined : momentOf(state, now)
}
