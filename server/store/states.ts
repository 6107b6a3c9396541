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
import { loadState, type Said } from './loading.ts'
import type { Follower, Heard } from './log.ts'
import type { News } from './news.ts'
import type { ChangeSetRow, Tables } from './tables.ts'

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

export const createStates = (): States => ({ bySlug: new Map(), published: new Map(), passedTo: new Map() })

/** Reads all workspaces, and says how far it is. */
export async function loadStates(tables: Tables, now: Instant, said: Said = () => {}): Promise<States> {
  const states = createStates()
  await loadInto(states, tables, { now, said })
  return states
}

interface Loading {
  readonly now: Instant
  readonly said: Said
}

async function loadInto(states: States, tables: Tables, { now, said }: Loading): Promise<void> {
  const latest = (await tables.changeSets.findAll({
    attributes: ['workspace', [tables.database.fn('max', tables.database.col('at')), 'at']],
    group: ['workspace'],
    raw: true,
  })) as unknown as Last[]
  const passed = (await tables.appliedTransitions.findAll({ raw: true })) as unknown as Last[]
  for (const [index, { workspace, at }] of latest.entries()) {
    states.passedTo.set(workspace, Math.max(at, passed.find(each => each.workspace === workspace)?.at ?? at))
    const tell = (line: string) => said(`workspace ${index + 1} of ${latest.length}: ${line}`)
    publish(states, await loadState(tables, workspace, tell), now)
  }
}

interface Last {
  readonly workspace: WorkspaceId
  readonly at: Instant
}

/** Keeps the states as the database has them: the writer gives its own, others are made of what stands in the history. */
export function followerOfStates(
  states: States,
  { tables, clock, said }: { readonly tables: Tables; readonly clock: () => Instant; readonly said: Said },
): Follower {
  return {
    load: () => loadInto(states, tables, { now: clock(), said }),
    hear: heard => {
      const revisions = heard.news.filter(each => each.of === 'revision')
      if (revisions.every(({ workspace }) => heard.states.has(workspace))) {
        take(states, heard)
        return undefined
      }
      return readRevisions(states, tables, revisions).then(made => {
        take(states, { ...heard, states: made })
      })
    },
  }
}

type Revision = Extract<News, { of: 'revision' }>

async function readRevisions(
  states: States,
  tables: Tables,
  revisions: readonly Revision[],
): Promise<ReadonlyMap<WorkspaceId, State>> {
  const made = new Map<WorkspaceId, State>()
  for (const { workspace, revision } of revisions) {
    const before = made.get(workspace) ?? states.published.get(workspace)?.snapshot.state
    if (before === undefined || revision > before.revision + 1)
      made.set(workspace, await loadState(tables, workspace))
    else if (revision > before.revision) made.set(workspace, await stateAfter(tables, before, workspace))
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

/** Publishes what an entry made; what began and ended before it counts as written where that is so. */
function take(states: States, { at, news, states: next }: Heard): void {
  const passed = new Set(news.flatMap(each => (each.of === 'passed' ? [each.workspace] : [])))
  for (const workspace of new Set([...next.keys(), ...passed])) {
    const isDue = (states.published.get(workspace)?.dueAt ?? at + 1) <= at
    if (passed.has(workspace) || !isDue) states.passedTo.set(workspace, at)
    const state = next.get(workspace) ?? states.published.get(workspace)?.snapshot.state
    if (state !== undefined) publish(states, state, at)
  }
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

/** The workspace as it is now; `undefined` if there is none. The same snapshot for as long as nothing changes. */
export function snapshotAt(states: States, workspace: WorkspaceId, now: Instant): Snapshot | undefined {
  const published = states.published.get(workspace)
  if (published === undefined) return undefined
  if (now >= published.holdsUntil) publish(states, published.snapshot.state, now)
  return states.published.get(workspace)?.snapshot
}
