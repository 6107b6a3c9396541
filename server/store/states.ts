import type { WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { shareEvaluation } from '#core/access/evaluation-context.ts'
import { nextDue } from '#core/changes/scheduled.ts'
import { nextBound } from '#core/state/snapshot.ts'
import { type Snapshot, type State, workspaceOf } from '#core/state/state.ts'
import { loadState, type Said } from './loading.ts'
import type { Tables } from './tables.ts'

/**
 * The published state of every workspace, in memory: a cache of the database, rebuilt at start and
 * replaced after each commit. Whoever holds a state keeps it whole.
 */
export interface States {
  readonly bySlug: Map<string, WorkspaceId>
  readonly published: Map<WorkspaceId, Published>
  /** Up to when the starts and ends of a workspace stand in its history. */
  readonly passedTo: Map<WorkspaceId, Instant>
}

interface Published {
  readonly snapshot: Snapshot
  /** When the next start or end passes: until then the snapshot's answers hold. */
  readonly holdsUntil: Instant
  /** When the next start, end or warning of one has to be written down. */
  readonly dueAt: Instant
}

/** Reads all workspaces, and says how far it is. */
export async function loadStates(tables: Tables, now: Instant, said: Said = () => {}): Promise<States> {
  const states: States = { bySlug: new Map(), published: new Map(), passedTo: new Map() }
  const revisions = await tables.changeSets.findAll({
    attributes: [
      'workspace',
      [tables.database.fn('max', tables.database.col('revision')), 'revision'],
      [tables.database.fn('max', tables.database.col('at')), 'at'],
    ],
    group: ['workspace'],
    raw: true,
  })
  const passed = (await tables.appliedTransitions.findAll({ raw: true })) as unknown as Last[]
  for (const [index, { workspace, revision, at }] of (revisions as unknown as Last[]).entries()) {
    states.passedTo.set(workspace, Math.max(at, passed.find(each => each.workspace === workspace)?.at ?? at))
    const tell = (line: string) => said(`workspace ${index + 1} of ${revisions.length}: ${line}`)
    publish(states, await loadState(tables, { workspace, revision, said: tell }), now)
  }
  return states
}

interface Last {
  readonly workspace: WorkspaceId
  readonly revision: number
  readonly at: Instant
}

export function publish(states: States, state: State, now: Instant): void {
  const { id, slug } = workspaceOf(state)
  states.bySlug.set(slug, id)
  const passedTo = states.passedTo.get(id) ?? now
  states.passedTo.set(id, passedTo)
  const snapshot = { state, at: now }
  seeAsBefore(states, snapshot)
  states.published.set(id, {
    snapshot,
    holdsUntil: nextBound(state, now),
    dueAt: nextDue(state, passedTo),
  })
}

/** What was worked out of people for the published snapshot stands for another one, until something begins or ends. */
export function seeAsBefore({ published }: States, snapshot: Snapshot): void {
  const before = published.get(workspaceOf(snapshot.state).id)
  if (before === undefined || snapshot.at < before.snapshot.at || snapshot.at >= before.holdsUntil) return
  shareEvaluation(before.snapshot, snapshot)
}

/** Notes that what began and ended up to `now` stands in the history. */
export function passTo(states: States, workspace: WorkspaceId, now: Instant): void {
  states.passedTo.set(workspace, now)
  const published = states.published.get(workspace)
  if (published !== undefined) publish(states, published.snapshot.state, now)
}

/** The workspace as it is now; `undefined` if there is none. The same snapshot for as long as nothing changes. */
export function snapshotAt(states: States, workspace: WorkspaceId, now: Instant): Snapshot | undefined {
  const published = states.published.get(workspace)
  if (published === undefined) return undefined
  if (now >= published.holdsUntil) publish(states, published.snapshot.state, now)
  return states.published.get(workspace)?.snapshot
}
