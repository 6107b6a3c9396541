import { rowOf } from '../base/collection.ts'
import { none, read } from '../base/column.ts'
import type { NodeId } from '../base/ids.ts'
import { idOf, numberOf } from '../base/numbering.ts'
import { type AccessIndex, inLinks, inStretch, inTree, state } from '../index/layout.ts'
import type { Moment } from '../state/state.ts'
import type { ContentNode } from '../tree/node.ts'

/**
 * A piece of the tree in which every node answers alike to everybody: a stretch, without its head where that is a
 * draft, and without what is cut out of it. Its top is the one node that has no other of it above.
 */
export interface Region {
  readonly top: number
  /** How many nodes, the top included. */
  readonly nodes: number
  /** The place in the list of the region in which the top's parent lies; `none` for the first one. */
  readonly within: number
}

/** Nodes at which regions end besides: another state has entries there, or has them elsewhere. */
export interface Cuts {
  readonly nodes: ReadonlySet<number>
  /** The stretches in which they lie. */
  readonly stretches: ReadonlySet<number>
  /** Nodes that may answer otherwise than what lies below them: drafts of another state. */
  readonly alone: ReadonlySet<number>
}

const noCuts: Cuts = { nodes: new Set(), stretches: new Set(), alone: new Set() }

/**
 * From a node down, each region after the one that it lies in; what begins at a cut is left out, with all below it.
 * Costs what the stretches cost; where one is cut, or begun in the middle, what its nodes cost too.
 */
export function regionsBelow(index: AccessIndex, start: number, cuts: Cuts = noCuts): Region[] {
  const regions: Region[] = []
  const waiting = [{ top: start, within: none as number }]
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    const inner = innerTops(index, next.top, cuts)
    let nodes = read(index.sizes, next.top)
    for (const top of inner) {
      nodes -= read(index.sizes, top)
      if (!cuts.nodes.has(top)) waiting.push({ top, within: regions.length })
    }
    regions.push({ ...next, nodes })
  }
  return regions
}

/** The places from one down that have something of their own, the place itself with them. */
export function apartBelow({ state: { index, nodes } }: Moment, node: NodeId): ContentNode[] {
  const start = numberOf(index.nodes, node)
  if (start === undefined) return []
  return regionsBelow(index, start).map(
    ({ top }) => rowOf(nodes, idOf(index.nodes, top) as NodeId) as ContentNode,
  )
}

/** The tops of the regions that lie right below the one with this top. */
function innerTops(index: AccessIndex, top: number, cuts: Cuts): number[] {
  const stretch = read(index.stretchOf, top)
  const base = stretch * inStretch.width
  const isHead = read(index.stretches, base + inStretch.head) === top
  const isDraft = isHead && (read(index.stretches, base + inStretch.state) & state.draft) !== 0
  if (isDraft || cuts.alone.has(top)) return childrenIn(index, top)
  if (isHead && !cuts.stretches.has(stretch)) return headsWithin(index, stretch)
  return topsWithin(index, { top, stretch }, cuts)
}

export function childrenIn({ tree }: AccessIndex, node: number): number[] {
  const children: number[] = []
  let child = read(tree, node * inTree.width + inTree.first)
  for (; child !== none; child = read(tree, child * inTree.width + inTree.next)) children.push(child)
  return children
}

function headsWithin({ stretches, stretchLinks }: AccessIndex, stretch: number): number[] {
  const heads: number[] = []
  let inner = read(stretchLinks, stretch * inLinks.width + inLinks.first)
  for (; inner !== none; inner = read(stretchLinks, inner * inLinks.width + inLinks.next))
    heads.push(read(stretches, inner * inStretch.width + inStretch.head))
  return heads
}

/** From a node down through the nodes of its stretch, to where others begin. */
function topsWithin(
  index: AccessIndex,
  { top, stretch }: { readonly top: number; readonly stretch: number },
  cuts: Cuts,
): number[] {
  const tops: number[] = []
  const waiting = childrenIn(index, top)
  for (let node = waiting.pop(); node !== undefined; node = waiting.pop())
    if (cuts.nodes.has(node) || read(index.stretchOf, node) !== stretch) tops.push(node)
    else waiting.push(...childrenIn(index, node))
  return tops
}
