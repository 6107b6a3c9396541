import { QueryTypes } from 'sequelize'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { shareEvaluation } from '#core/access/evaluation-context.ts'
import { nextDue } from '#core/changes/scheduled.ts'
import { nextBound } from '#core/state/snapshot.ts'
import {
  applyChanges,
  atRevision,
  type RecordChange,
  type Snapshot,
  type State,
  workspaceOf,
} from '#core/state/state.ts'
import { loadState, type OnProgress } from './loading.ts'
import type { Follower, Heard } from './log.ts'
import type { News } from './news.ts'
import type { ChangeSetRow, Tables } from './tables.ts'

/**
 * What is known of workspaces in memory: a little of each, and the published state of those that are in use, loaded when
 * they are first asked for. It is a cache of the database, replaced after each commit; whoever holds a state keeps it whole.
 */
export interface States extends Source {
  readonly bySlug: Map<string, WorkspaceId>
  readonly heads: Map<WorkspaceId, Head>
  readonly published: Map<WorkspaceId, Published>
  readonly loading: Map<WorkspaceId, Promise<void>>
}

interface Source {
  readonly tables: Tables
  readonly clock: () => Instant
  /** Told how far it is while workspaces are read. */
  readonly onProgress: OnProgress
}

/** What is known of a workspace that nobody uses. */
export interface Head {
  readonly slug: string
  readonly revision: number
  /** Up to when the starts and ends stand in its history. */
  readonly passedTo: Instant
  /** When the next start, end or warning of one has to be written down; `null` while that is not known. */
  readonly dueAt: Instant | null
}

interface Published {
  readonly snapshot: Snapshot
  /** When the next start or end passes: until then the snapshot's answers hold. */
  readonly holdsUntil: Instant
  /** When somebody asked last. */
  usedAt: Instant
  /** The revision at which it was read. */
  readonly readAt: number
}

export const createStates = (source: Source): States => ({
  ...source,
  bySlug: new Map(),
  heads: new Map(),
  published: new Map(),
  loading: new Map(),
})

/** So many workspaces are read before they are asked for, those that were written last. */
const readAhead = 8

/** Reads all workspaces, for who looks through a database. */
export async function loadStates(tables: Tables, now: Instant): Promise<States> {
  const states = createStates({ tables, clock: () => now, onProgress: () => {} })
  await readHeads(states)
  for (const workspace of states.heads.keys()) await need(states, workspace)
  return states
}

interface HeadRow {
  readonly workspace: WorkspaceId
  readonly slug: string
  readonly revision: number
  readonly at: Instant
  readonly passedTo: Instant | null
  readonly dueAt: Instant | null
}

/** A little of each workspace, those that were written last first. */
async function readHeads(states: States, only?: WorkspaceId): Promise<void> {
  const rows = await states.tables.database.query<HeadRow>(
    `SELECT entries.workspace, slug, revision, entries."at", applied."at" AS "passedTo", "dueAt" FROM
      (SELECT workspace, max(revision) AS revision, max("at") AS "at" FROM "changeSets"
        ${only === undefined ? '' : 'WHERE workspace = $only'} GROUP BY workspace) AS entries
      JOIN workspaces ON workspaces.workspace = entries.workspace
      LEFT JOIN "appliedTransitions" AS applied ON applied.workspace = entries.workspace
      ORDER BY entries."at" DESC`,
    { type: QueryTypes.SELECT, ...(only === undefined ? {} : { bind: { only } }) },
  )
  for (const { workspace, slug, revision, at, passedTo, dueAt } of rows) {
    states.bySlug.set(slug, workspace)
    states.heads.set(workspace, { slug, revision, passedTo: Math.max(at, passedTo ?? at), dueAt })
  }
}

/** Has a workspace in memory: to be awaited before it is asked about. */
export function need(states: States, workspace: WorkspaceId): Promise<void> {
  if (states.published.has(workspace) || !states.heads.has(workspace)) return Promise.resolve()
  const before = states.loading.get(workspace)
  if (before !== undefined) return before
  const loading = readWorkspace(states, workspace).finally(() => states.loading.delete(workspace))
  states.loading.set(workspace, loading)
  return loading
}

/** Reads it, though it may be there already: what others wrote meanwhile is in it. */
export async function readWorkspace(states: States, workspace: WorkspaceId): Promise<void> {
  const { tables, clock, onProgress } = states
  const read = await loadState(tables, workspace, onProgress)
  const state = await caughtUp(states, read)
  publish(states, state, { now: clock(), readAt: read.revision })
}

/** The state with all that is known to have been written since it was read. */
export async function caughtUp({ tables, heads }: States, read: State): Promise<State> {
  const { id } = workspaceOf(read)
  let state = read
  const isBehind = () => state.revision < (heads.get(id)?.revision ?? 0)
  while (isBehind()) state = await stateAfter(tables, state, id)
  return state
}

/**
 * Of so many changes, or a tenth of the places, each lies apart from what was read: to write, and to hold it all, takes
 * longer by and by. Past that it is read anew.
 */
const keptApart = 10_000

/** The workspaces in memory that are to be read anew. */
export const agedIn = ({ published }: States): WorkspaceId[] =>
  [...published].flatMap(([workspace, { readAt, snapshot }]) => {
    const { revision, index } = snapshot.state
    return revision - readAt > Math.max(keptApart, index.nodes.length / 10) ? [workspace] : []
  })

/** Lets go of workspaces that nobody has asked about since, but for those in use. */
export function putAway(states: States, since: Instant, isInUse: (workspace: WorkspaceId) => boolean): void {
  for (const [workspace, { usedAt }] of states.published)
    if (usedAt < since && !isInUse(workspace)) states.published.delete(workspace)
}

/** Keeps the states as the database has them: the writer gives its own, others are made of what stands in the history. */
export const followerOfStates = (states: States): Follower => ({
  load: async () => {
    await readHeads(states)
    const used = [...states.published.keys()]
    const ahead = used.length > 0 ? used : [...states.heads.keys()].slice(0, readAhead)
    for (const [index, workspace] of ahead.entries()) {
      states.onProgress(`workspace ${index + 1} of ${ahead.length}`)
      await readWorkspace(states, workspace)
    }
  },
  hear: heard => {
    const revisions = heard.news.filter(each => each.of === 'revision')
    if (revisions.every(({ workspace }) => heard.states.has(workspace))) {
      take(states, heard)
      return undefined
    }
    return readRevisions(states, revisions).then(made => {
      take(states, { ...heard, states: made })
    })
  },
})

type Revision = Extract<News, { of: 'revision' }>

async function readRevisions(
  states: States,
  revisions: readonly Revision[],
): Promise<ReadonlyMap<WorkspaceId, State>> {
  const made = new Map<WorkspaceId, State>()
  for (const { workspace, revision } of revisions) {
    const head = states.heads.get(workspace)
    if (head === undefined) await readHeads(states, workspace)
    else if (head.revision < revision) states.heads.set(workspace, { ...head, revision })
    const before = made.get(workspace) ?? states.published.get(workspace)?.snapshot.state
    // Where nobody uses it, it is read when somebody does.
    if (before !== undefined && revision > before.revision)
      made.set(workspace, await stateAfter(states.tables, before, workspace))
  }
  return made
}

/** The state that the next entry of the history makes. */
async function stateAfter(tables: Tables, before: State, workspace: WorkspaceId): Promise<State> {
  const revision = before.revision + 1
  const row = await tables.changeSets.findOne({
    attributes: ['changes'],
    where: { workspace, revision },
    raw: true,
  })
  const { changes } = row as unknown as Pick<ChangeSetRow, 'changes'>
  return atRevision(applyChanges(before, JSON.parse(changes) as RecordChange[]), revision)
}

/** Publishes what an entry made. */
function take(states: States, { at, news, states: next }: Heard): void {
  const passed = new Set(news.flatMap(each => (each.of === 'passed' ? [each.workspace] : [])))
  const anew = new Set(news.flatMap(each => (each.of === 'read-anew' ? [each.workspace] : [])))
  for (const workspace of new Set([...next.keys(), ...passed])) {
    const state = next.get(workspace) ?? states.published.get(workspace)?.snapshot.state
    const head = states.heads.get(workspace)
    const passedTo = passedAfter(head, { at, isPassed: passed.has(workspace) })
    if (head !== undefined) states.heads.set(workspace, { ...head, passedTo })
    const read = state !== undefined && anew.has(workspace) ? { readAt: state.revision } : {}
    if (state !== undefined) publish(states, state, { now: at, passedTo, ...read })
  }
}

/** Up to when the starts and ends stand in the history after something was written: up to then, unless some are due still. */
export const passedAfter = (
  head: Head | undefined,
  { at, isPassed }: { readonly at: Instant; readonly isPassed: boolean },
): Instant => (head === undefined || isPassed || (head.dueAt ?? at) > at ? at : head.passedTo)

/** The end of all that can be said of time: nothing is due. */
const never = 8.64e15

/** When the next start, end or warning has to be written down. */
export const dueAfter = (state: State, passedTo: Instant): Instant =>
  Math.min(nextDue(state, passedTo), never)

interface Publishing {
  readonly now: Instant
  readonly passedTo?: Instant
  /** Where it was read now: the revision at which it was. */
  readonly readAt?: number
}

function publish(states: States, state: State, { now, ...more }: Publishing): void {
  const { id, slug } = workspaceOf(state)
  const before = states.published.get(id)
  const head = states.heads.get(id)
  const passedTo = more.passedTo ?? head?.passedTo ?? now
  const { revision } = state
  states.bySlug.set(slug, id)
  states.heads.set(id, { slug, revision, passedTo, dueAt: dueAfter(state, passedTo) })
  const snapshot = { state, at: now }
  seeAsBefore(states, snapshot)
  states.published.set(id, {
    snapshot,
    holdsUntil: nextBound(state, now),
    usedAt: Math.max(before?.usedAt ?? 0, now),
    readAt: more.readAt ?? before?.readAt ?? revision,
  })
}

/** What was worked out of people for the published snapshot stands for another one, until something begins or ends. */
export function seeAsBefore({ published }: States, snapshot: Snapshot): void {
  const before = published.get(workspaceOf(snapshot.state).id)
  if (before === undefined || snapshot.at < before.snapshot.at || snapshot.at >= before.holdsUntil) return
  shareEvaluation(before.snapshot, snapshot)
}

/**
 * A workspace that is in memory, as it is now; `undefined` if there is none. The same snapshot for as long as nothing
 * changes.
 */
export function snapshotAt(states: States, workspace: WorkspaceId, now: Instant): Snapshot | undefined {
  const published = states.published.get(workspace)
  if (published === undefined) return undefined
  published.usedAt = now
  if (now >= published.holdsUntil) publish(states, published.snapshot.state, { now })
  return states.published.get(workspace)?.snapshot
}
