import type { PlaceChangeView } from '#contract/views/content.ts'
import { rowOf } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import type { Parts } from '../../parts.ts'
import type { PlaceChangeRow } from '../../store/tables.ts'
import { type Asker, visiblePlace, knowsPerson, nameOf } from '../viewer/asker.ts'
import { visibleChildren } from './content.ts'

/** So many places stand in one statement. */
export const mostIds = 500

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
