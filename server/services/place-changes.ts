import type { PlaceChangeView } from '#contract/views/content.ts'
import { rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { theWorkspace } from '#core/changes/scheduled.ts'
import type { RecordChange } from '#core/state/state.ts'
import type { Parts } from '../parts.ts'
import type { RowChange } from '../store/commit.ts'
import type { PlaceChangeRow } from '../store/tables.ts'
import { type Asker, knowsPerson, nameOf, visiblePlace } from './asker.ts'
import { visibleChildren } from './content.ts'

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

/** So many places stand in one statement. */
const mostIds = 500

/** Who last changed each place that the asker sees in another one, and when. */
export async function changesWithin({ writer }: Parts, asker: Asker, id: string): Promise<PlaceChangeView[]> {
  const within = visibleChildren(asker, visiblePlace(asker, id).place.node.id).map(each => each.id as NodeId)
  const found = new Map<string, PlaceChangeRow>()
  for (let from = 0; from < within.length; from += mostIds) {
    const rows = (await writer.tables.placeChanges.findAll({
      where: { workspace: asker.workspace, id: within.slice(from, from + mostIds) },
      raw: true,
    })) as unknown as PlaceChangeRow[]
    for (const row of rows) found.set(row.id, row)
  }
  return within.flatMap(node => {
    const made = rowOf(asker.snapshot.state.nodes, node)
    const { at, by } = found.get(node) ?? { at: made?.madeAt ?? asker.snapshot.at, by: made?.maker ?? null }
    return [{ id: node, at, by: by !== null && knowsPerson(asker, by) ? nameOf(asker.snapshot, by) : null }]
  })
}
