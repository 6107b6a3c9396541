import type { NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { theWorkspace } from '#core/changes/scheduled.ts'
import type { RecordChange } from '#core/state/state.ts'
import type { RowChange } from '../../store/commit.ts'
import type { PlaceChangeRow } from '../../store/tables.ts'

interface Done {
  readonly workspace: WorkspaceId
  readonly at: Instant
  readonly by: PersonId
}

/** Who changed places last, and when: of those that a change set made, changed or deleted. */
export function placeChanges({
  changes,
  ...done
}: Done & { readonly changes: readonly RecordChange[] }): RowChange[] {
  const kept: NodeId[] = []
  const gone: NodeId[] = []
  for (const { table, id, after } of changes) if (table === 'nodes') (after === null ? gone : kept).push(id)
  return [
    { kind: 'drop', table: 'placeChanges', workspace: done.workspace, ids: gone },
    placesChanged({ ...done, places: kept }),
  ]
}

/** The same of places of which what they hold was changed: a page's text. */
export function placesChanged({
  workspace,
  at,
  by,
  places,
}: Done & { readonly places: readonly NodeId[] }): RowChange {
  const rows: PlaceChangeRow[] = places.map(id => ({
    workspace,
    id,
    at,
    by: by === theWorkspace ? null : by,
  }))
  return { kind: 'put', table: 'placeChanges', rows, replaced: ['at', 'by'] }
}
