import { none, read } from '../base/column.ts'
import { type AccessIndex, inLinks, inStretch, inTree, state } from '../index/layout.ts'

/**
 * Pieces of the tree in each of which every node answers alike to everybody: a stretch, without its head where that is
 * a draft, and without what is cut out of it. Each comes after the one in which it lies. There can be very many: they
 * are columns, by place in the list.
 */
export interface Regions {
  /** The one node of it that has no other of it above. */
  readonly tops: number[]
  /** How many nodes, the top included. */
  readonly nodes: number[]
  /** The place of the region in which the top's parent lies; `none` for the first one. */
  readonly within: number[]
}

/** Nodes at which regions end besides: another state has entries there, or has them elsewhere. */
export interface Cuts {
  readonly nodes: ReadonlySet<number>
  /** The stretches in the middle of which they lie. */
  readonly stretches: ReadonlySet<number>
  /** Nodes that may answer otherwise than what lies below them: drafts of another state, the root. */
  readonly alone: ReadonlySet<number>
}

const noCuts: Cuts = { nodes: new Set(), stretches: new Set(), alone: new Set() }

/**
 * From a node down; what begins at a cut is left out, with all below it. Costs what the stretches cost; where one is
 * cut, or begun in the middle, what its nodes cost too.
 */
export function regionsBelow(index: AccessIndex, start: number, cuts: Cuts = noCuts): Regions {
  const regions: Regions = { tops: [], nodes: [], within: [] }
  const waiting = [start]
  const inside: number[] = [end]
  for (let top = waiting.pop(); top !== undefined; top = waiting.pop()) {
    const place = regions.tops.push(top) - 1
    regions.within.push(inside.pop() as number)
    regions.nodes.push(openRegion({ index, cuts, waiting }, top))
    while (inside.length < waiting.length) inside.push(place)
  }
  return regions
}

/** A way down the tree from region to region. */
export interface Opening {
  readonly index: AccessIndex
  readonly cuts: Cuts
  /** Where regions begin that were met and not opened yet. */
  readonly waiting: number[]
}

/** Adds where the regions begin that lie right in the one that begins at a node; returns how many nodes it has itself. */
export function openRegion({ index, cuts, waiting }: Opening, top: number): number {
  const { sizes, stretchLinks, stretches } = index
  const isCut = cuts.nodes.size > 0
  let nodes = read(sizes, top)
  const whole = wholeStretchAt(index, top, cuts)
  if (whole === end) {
    for (const inner of innerTops(index, top, cuts)) {
      nodes -= read(sizes, inner)
      if (!cuts.nodes.has(inner)) waiting.push(inner)
    }
    return nodes
  }
  for (let inner = read(stretchLinks, whole * linksWidth + firstAt); inner !== end;) {
    const head = read(stretches, inner * stretchWidth + headAt)
    nodes -= read(sizes, head)
    inner = read(stretchLinks, inner * linksWidth + nextAt)
    if (!isCut || !cuts.nodes.has(head)) waiting.push(head)
  }
  return nodes
}

/** The nodes of the region that begins at a node, from it down. Costs what they cost. */
export function nodesIn(index: AccessIndex, top: number, cuts: Cuts): number[] {
  const others: number[] = []
  openRegion({ index, cuts, waiting: others }, top)
  const isOther = new Set([...others, ...cuts.nodes])
  const nodes: number[] = []
  const waiting = [top]
  for (let node = waiting.pop(); node !== undefined; node = waiting.pop()) {
    nodes.push(node)
    for (const child of childrenIn(index, node)) if (!isOther.has(child)) waiting.push(child)
  }
  return nodes
}

// Their own copies: what is imported is looked up anew at each use.
const end = none
const { width: stretchWidth, head: headAt, state: stateAt, entry: entryAt } = inStretch
const { width: linksWidth, first: firstAt, next: nextAt } = inLinks
const { draft } = state

/** What begins below a node and has something of its own, by number, in the order in which one walks down. */
export function headsBelow(index: AccessIndex, node: number): number[] {
  const { stretchOf, stretches } = index
  return regionsBelow(index, node).tops.filter(
    top => top !== node && read(stretches, read(stretchOf, top) * stretchWidth + headAt) === top,
  )
}

/** What a head has of its own. */
export function ownAt({ stretchOf, stretches }: AccessIndex, head: number): Own {
  const row = read(stretchOf, head) * stretchWidth
  return {
    states: read(stretches, row + stateAt),
    hasEntries: read(stretches, row + entryAt) !== end,
  }
}

export interface Own {
  /** Bits: see `state`. */
  readonly states: number
  readonly hasEntries: boolean
}

/** The stretch that a region is the whole of, beginning at a node; `none` if it is not. */
function wholeStretchAt({ stretchOf, stretches }: AccessIndex, top: number, cuts: Cuts): number {
  const stretch = read(stretchOf, top)
  const row = stretch * stretchWidth
  if (read(stretches, row + headAt) !== top || (read(stretches, row + stateAt) & draft) !== 0) return end
  return cuts.stretches.has(stretch) || cuts.alone.has(top) ? end : stretch
}

/** The tops of the regions that lie right below a node, where its region is no whole stretch. */
function innerTops(index: AccessIndex, top: number, cuts: Cuts): number[] {
  const stretch = read(index.stretchOf, top)
  const row = stretch * stretchWidth
  const isDraft =
    read(index.stretches, row + headAt) === top && (read(index.stretches, row + stateAt) & draft) !== 0
  if (isDraft || cuts.alone.has(top)) return childrenIn(index, top)
  return topsWithin(index, { top, stretch }, cuts)
}

export function childrenIn({ tree }: AccessIndex, node: number): number[] {
  const children: number[] = []
  let child = read(tree, node * inTree.width + inTree.first)
  for (; child !== none; child = read(tree, child * inTree.width + inTree.next)) children.push(child)
  return children
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
