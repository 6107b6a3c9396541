import type { PlaceChangeView } from '#contract/views/content.ts'
import { rowOf } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import type { Parts } from '../../parts.ts'
import { fileVersions } from '../../store/content/file-versions.ts'
import type { PlaceChangeRow } from '../../store/tables.ts'
import { type Asker, visiblePlace, knowsPerson, nameOf } from '../viewer/asker.ts'
import { visibleChildren } from './content.ts'
import { formOf } from './previews.ts'

/** So many places stand in one statement. */
export const mostIds = 500

/** Who last changed each place that the asker sees in another one, and when. */
export async function changesWithin({ writer }: Parts, asker: Asker, id: string): Promise<PlaceChangeView[]> {
  const children = visibleChildren(asker, visiblePlace(asker, id).place.node.id)
  const within = children.map(each => each.id as NodeId)
  const files = await fileVersions.newestIn(writer.tables, {
    workspace: asker.workspace,
    nodes: children.flatMap(each => (each.kind === 'file' ? [each.id as NodeId] : [])),
  })
  const fileOf = new Map(
    files.map(({ node, size, version, kind }) => [node, { size, version, form: formOf(kind) }]),
  )
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
    const name = by !== null && knowsPerson(asker, by) ? nameOf(asker.snapshot, by) : null
    return [{ id: node, at, by: name, file: fileOf.get(node) ?? null }]
  })
}
