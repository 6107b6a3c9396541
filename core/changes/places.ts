import { type Cuts, regionsBelow } from '../access/regions.ts'
import { read } from '../base/column.ts'
import type { NodeId } from '../base/ids.ts'
import { idOf, numberOf } from '../base/numbering.ts'
import { type AccessIndex, inStretch, state } from '../index/layout.ts'
import type { State } from '../state/state.ts'

/** A place and all below it that answers as it does to everybody, in one state and in another. */
export interface Place {
  readonly node: NodeId
  /** How many places, this one included. */
  readonly nodes: number
}

/**
 * All that lies below some places in either of two states, cut into pieces that answer alike in both. Costs what the
 * stretches below cost, not the places between.
 */
export function placesBelow(before: State, after: State, tops: ReadonlySet<NodeId>): Place[] {
  const indexes = { before: before.index, after: after.index }
  const inAfter = piecesIn(indexes.after, { other: indexes.before, tops, isMeant: () => true })
  const isGone = (id: NodeId) => numberOf(indexes.after.nodes, id) === undefined
  const gone = [...tops].filter(isGone)
  if (gone.length === 0) return inAfter
  return [...inAfter, ...piecesIn(indexes.before, { other: indexes.after, tops, isMeant: isGone })]
}

interface Cutting {
  readonly other: AccessIndex
  readonly tops: ReadonlySet<NodeId>
  /** Which of the tops to begin at. What lies below the others is left out. */
  readonly isMeant: (id: NodeId) => boolean
}

function piecesIn(index: AccessIndex, { other, tops, isMeant }: Cutting): Place[] {
  const numbers = new Map<number, NodeId>()
  for (const id of tops) {
    const number = numberOf(index.nodes, id)
    if (number !== undefined) numbers.set(number, id)
  }
  const cuts: Cuts = {
    nodes: new Set(numbers.keys()),
    stretches: new Set([...numbers.keys()].map(node => read(index.stretchOf, node))),
    alone: new Set([...numbers].filter(([, id]) => isDraft(other, id)).map(([node]) => node)),
  }
  const pieces: Place[] = []
  for (const [top, id] of numbers)
    if (isMeant(id))
      for (const region of regionsBelow(index, top, cuts))
        pieces.push({ node: idOf(index.nodes, region.top) as NodeId, nodes: region.nodes })
  return pieces
}

function isDraft({ nodes, stretchOf, stretches }: AccessIndex, id: NodeId): boolean {
  const node = numberOf(nodes, id)
  if (node === undefined) return false
  const base = read(stretchOf, node) * inStretch.width
  const isHead = read(stretches, base + inStretch.head) === node
  return isHead && (read(stretches, base + inStretch.state) & state.draft) !== 0
}
