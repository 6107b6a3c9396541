import type { WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { nextBound } from '#core/state/moment.ts'
import {
  applyChanges,
  atRevision,
  emptyState,
  type Moment,
  type RecordChange,
  type State,
  tableNames,
  workspaceOf,
} from '#core/state/state.ts'
import { fromRow, type StoredRow } from './columns.ts'
import type { Tables } from './tables.ts'

/**
 * The published state of every workspace, in memory: a cache of the database, rebuilt at start and
 * replaced after each commit. Whoever holds a state keeps it whole.
 */
export interface States {
  readonly bySlug: Map<string, WorkspaceId>
  readonly published: Map<WorkspaceId, Published>
}

interface Published {
  readonly moment: Moment
  /** When the next start or end passes: until then the moment's answers hold. */
  readonly holdsUntil: Instant
}

export async function loadStates(tables: Tables, now: Instant): Promise<States> {
  const states: States = { bySlug: new Map(), published: new Map() }
  const revisions = await tables.changeSets.findAll({
    attributes: ['workspace', [tables.database.fn('max', tables.database.col('revision')), 'revision']],
    group: ['workspace'],
    raw: true,
  })
  for (const row of revisions as unknown as { workspace: WorkspaceId; revision: number }[])
    publish(states, await loadState(tables, row.workspace, row.revision), now)
  return states
}

async function loadState(tables: Tables, workspace: WorkspaceId, revision: number): Promise<State> {
  let state = emptyState
  for (const table of tableNames) {
    const rows = (await tables.records[table].findAll({
      where: { workspace },
      raw: true,
    })) as unknown as StoredRow[]
    const changes = rows.map(row => {
      const after = fromRow(table, row)
      return { table, id: after.id, before: null, after } as RecordChange
    })
    state = applyChanges(state, changes)
  }
  return atRevision(state, revision)
}

export function publish(states: States, state: State, now: Instant): void {
  const { id, slug } = workspaceOf(state)
  states.bySlug.set(slug, id)
  states.published.set(id, { moment: { state, at: now }, holdsUntil: nextBound(state, now) })
}

/** The workspace as it is now; `undefined` if there is none. The same moment for as long as nothing changes. */
export function momentAt(states: States, workspace: WorkspaceId, now: Instant): Moment | undefined {
  const published = states.published.get(workspace)
  if (published === undefined) return undefined
  if (now >= published.holdsUntil) publish(states, published.moment.state, now)
  return states.published.get(workspace)?.moment
}
