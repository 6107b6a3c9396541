import { literal } from 'sequelize'
import type { NodeId, WorkspaceId } from '#core/base/ids.ts'
import type { Parts } from '../../parts.ts'

interface Counted {
  readonly node: NodeId
  readonly count: number | string
}

/** How many comments stand at some places: those that were removed are none. */
export async function commentsCounted(
  { writer }: Parts,
  workspace: WorkspaceId,
  nodes: readonly NodeId[],
): Promise<ReadonlyMap<NodeId, number>> {
  if (nodes.length === 0) return new Map()
  const rows = (await writer.tables.comments.findAll({
    attributes: ['node', [literal('count(*)'), 'count']],
    where: { workspace, node: [...nodes], removedAt: null },
    group: ['node'],
    raw: true,
  })) as unknown as Counted[]
  return new Map(rows.map(({ node, count }) => [node, Number(count)]))
}
