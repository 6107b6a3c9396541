import { belowEach, cutSegmentsAt, startsAt } from '../access/side-by-side.ts'
import type { NodeId } from '../base/ids.ts'
import { idOf } from '../base/numbering.ts'
import { pathOf, type State } from '../state/state.ts'

/** A place and all below it that answers as it does to everybody, in one state and in another. */
export interface Place {
  readonly node: NodeId
  /** How many places, this one included. */
  readonly nodes: number
}

/** Without those that lie in another of them. */
export function topmostOf(state: State, nodes: readonly NodeId[]): NodeId[] {
  const all = new Set(nodes)
  return nodes.filter(
    node =>
      !pathOf(state, node)
        .slice(1)
        .some(each => all.has(each.id)),
  )
}

/** All that lies below some places in either of two states, cut into segments that answer alike in both. */
export function placesBelow(before: State, after: State, roots: ReadonlySet<NodeId>): Place[] {
  const indexes = [before.index, after.index] as const
  return belowEach(indexes, startsAt(indexes, roots)).flatMap(below => {
    const { roots, nodes } = cutSegmentsAt(indexes, below)
    return roots.map((top, place) => ({
      node: idOf(indexes[below.side].nodes, top) as NodeId,
      nodes: nodes[place] as number,
    }))
  })
}
