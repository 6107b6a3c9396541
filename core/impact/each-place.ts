import { childrenIn } from '../access/regions.ts'
import type { NodeId } from '../base/ids.ts'
import { idOf, numberOf } from '../base/numbering.ts'
import { touchedPlaces, type Touching } from '../changes/touched.ts'
import type { Difference } from './impact.ts'

/** Past so many rows a difference stays one for a place and all below it that answers alike. */
const mostTold = 5000

/** Differences place by place, where they are few enough to be read so; else as they are. */
export function eachPlace(touching: Touching, differences: readonly Difference[]): readonly Difference[] {
  const rows = differences.reduce((sum, each) => sum + each.nodes, 0)
  if (rows === differences.length || rows > mostTold) return differences
  const tops = new Set(touchedPlaces(touching).map(place => place.node))
  const known = new Map<NodeId, NodeId[]>()
  return differences.flatMap(difference => {
    const nodes = known.get(difference.node) ?? nodesWith(touching, difference.node, tops)
    known.set(difference.node, nodes)
    return nodes.map(node => ({ ...difference, node, nodes: 1 }))
  })
}

/** A place and all below it up to where others begin. */
function nodesWith({ before, after }: Touching, top: NodeId, tops: ReadonlySet<NodeId>): NodeId[] {
  const isThere = numberOf(after.state.index.nodes, top) !== undefined
  const { index } = isThere ? after.state : before.state
  const nodes: NodeId[] = []
  const waiting = [numberOf(index.nodes, top) as number]
  for (let node = waiting.pop(); node !== undefined; node = waiting.pop()) {
    nodes.push(idOf(index.nodes, node) as NodeId)
    for (const child of childrenIn(index, node))
      if (!tops.has(idOf(index.nodes, child) as NodeId)) waiting.push(child)
  }
  return nodes
}
