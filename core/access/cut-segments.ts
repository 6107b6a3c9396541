import { none, read } from '../base/vector.ts'
import { type AccessIndex, inLinks, inSegment, inTree, state } from '../index/layout.ts'

/**
 * Parts of the tree in each of which every node answers alike to everybody: a segment, without its head where that is
 * a draft, and without what is cut out of it. Each comes after the one in which it lies. There can be very many: they
 * are vectors, by place in the list.
 */
export interface CutSegments {
  /** The one node of it that has no other of it above. */
  readonly roots: number[]
  /** How many nodes, the top included. */
  readonly nodes: number[]
  /** The place of the cut segment in which the top's parent lies; `none` for the first one. */
  readonly within: number[]
}

/** Nodes at which cut segments end besides: another state has entries there, or has them elsewhere. */
export interface Cuts {
  readonly nodes: ReadonlySet<number>
  /** The segments in the middle of which they lie. */
  readonly segments: ReadonlySet<number>
  /** Nodes that may answer otherwise than what lies below them: drafts of another state, the root. */
  readonly alone: ReadonlySet<number>
}

const noCuts: Cuts = { nodes: new Set(), segments: new Set(), alone: new Set() }

/**
 * From a node down; what begins at a cut is left out, with all below it. Costs what the segments cost; where one is
 * cut, or begun in the middle, what its nodes cost too.
 */
export function cutSegmentsBelow(index: AccessIndex, start: number, cuts: Cuts = noCuts): CutSegments {
  const cutSegments: CutSegments = { roots: [], nodes: [], within: [] }
  const waiting = [start]
  const inside: number[] = [end]
  for (let top = waiting.pop(); top !== undefined; top = waiting.pop()) {
    const place = cutSegments.roots.push(top) - 1
    cutSegments.within.push(inside.pop() as number)
    cutSegments.nodes.push(openCutSegment({ index, cuts, waiting }, top))
    while (inside.length < waiting.length) inside.push(place)
  }
  return cutSegments
}

/** A way down the tree from cut segment to cut segment. */
export interface Opening {
  readonly index: AccessIndex
  readonly cuts: Cuts
  /** Where cut segments begin that were met and not opened yet. */
  readonly waiting: number[]
}

/** Adds where the cut segments begin that lie right in the one that begins at a node; returns how many nodes it has itself. */
export function openCutSegment({ index, cuts, waiting }: Opening, top: number): number {
  const { sizes, segmentLinks, segments } = index
  const isCut = cuts.nodes.size > 0
  let nodes = read(sizes, top)
  const whole = storedSegmentAt(index, top, cuts)
  if (whole === end) {
    for (const inner of innerRoots(index, top, cuts)) {
      nodes -= read(sizes, inner)
      if (!cuts.nodes.has(inner)) waiting.push(inner)
    }
    return nodes
  }
  for (let inner = read(segmentLinks, whole * linksWidth + firstAt); inner !== end;) {
    const head = read(segments, inner * segmentWidth + headAt)
    nodes -= read(sizes, head)
    inner = read(segmentLinks, inner * linksWidth + nextAt)
    if (!isCut || !cuts.nodes.has(head)) waiting.push(head)
  }
  return nodes
}

/** The nodes of the cut segment that begins at a node, from it down. Costs what they cost. */
export function nodesIn(index: AccessIndex, top: number, cuts: Cuts): number[] {
  const others: number[] = []
  openCutSegment({ index, cuts, waiting: others }, top)
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
const { width: segmentWidth, head: headAt, state: stateAt, entry: entryAt } = inSegment
const { width: linksWidth, first: firstAt, next: nextAt } = inLinks
const { draft } = state

/**
 * What begins below a node and has something of its own, by number, each after what it lies in. Costs what the segments
 * below cost; where the node lies in the middle of one, a look up from each that lies right in it.
 */
export function headsBelow(index: AccessIndex, node: number): number[] {
  const segment = read(index.segmentOf, node)
  const isWhole = isHead(index, node)
  const heads: number[] = []
  for (const inner of innerSegments(index, segment))
    if (isWhole || isWithin(index, headOf(index, inner), node)) addHeads(index, inner, heads)
  return heads
}

/** Whether a node has something of its own. */
export const isHead = (index: AccessIndex, node: number): boolean =>
  headOf(index, read(index.segmentOf, node)) === node

/** Whether a node is another, or lies below it. */
export function isWithin({ tree }: AccessIndex, node: number, top: number): boolean {
  let up = node
  while (up !== none && up !== top) up = read(tree, up * inTree.width + inTree.parent)
  return up === top
}

const headOf = ({ segments }: AccessIndex, segment: number): number =>
  read(segments, segment * segmentWidth + headAt)

function* innerSegments({ segmentLinks }: AccessIndex, segment: number): Generator<number> {
  let inner = read(segmentLinks, segment * linksWidth + firstAt)
  for (; inner !== end; inner = read(segmentLinks, inner * linksWidth + nextAt)) yield inner
}

function addHeads(index: AccessIndex, from: number, heads: number[]): void {
  const waiting = [from]
  for (let segment = waiting.pop(); segment !== undefined; segment = waiting.pop()) {
    heads.push(headOf(index, segment))
    waiting.push(...innerSegments(index, segment))
  }
}

/** What a head has of its own. */
export function ownAt({ segmentOf, segments }: AccessIndex, head: number): Own {
  const row = read(segmentOf, head) * segmentWidth
  return {
    states: read(segments, row + stateAt),
    hasEntries: read(segments, row + entryAt) !== end,
  }
}

export interface Own {
  /** Bits: see `state`. */
  readonly states: number
  readonly hasEntries: boolean
}

/** The segment that a cut segment is the whole of, beginning at a node; `none` if it is not. */
function storedSegmentAt({ segmentOf, segments }: AccessIndex, top: number, cuts: Cuts): number {
  const segment = read(segmentOf, top)
  const row = segment * segmentWidth
  if (read(segments, row + headAt) !== top || (read(segments, row + stateAt) & draft) !== 0) return end
  return cuts.segments.has(segment) || cuts.alone.has(top) ? end : segment
}

/** The tops of the cut segments that lie right below a node, where that is no whole segment. */
function innerRoots(index: AccessIndex, top: number, cuts: Cuts): number[] {
  const segment = read(index.segmentOf, top)
  const row = segment * segmentWidth
  const isDraft =
    read(index.segments, row + headAt) === top && (read(index.segments, row + stateAt) & draft) !== 0
  if (isDraft || cuts.alone.has(top)) return childrenIn(index, top)
  return rootsWithin(index, { top, segment }, cuts)
}

export function childrenIn({ tree }: AccessIndex, node: number): number[] {
  const children: number[] = []
  let child = read(tree, node * inTree.width + inTree.first)
  for (; child !== none; child = read(tree, child * inTree.width + inTree.next)) children.push(child)
  return children
}

/** From a node down through the nodes of its segment, to where others begin. */
function rootsWithin(
  index: AccessIndex,
  { top, segment }: { readonly top: number; readonly segment: number },
  cuts: Cuts,
): number[] {
  const roots: number[] = []
  const waiting = childrenIn(index, top)
  for (let node = waiting.pop(); node !== undefined; node = waiting.pop())
    if (cuts.nodes.has(node) || read(index.segmentOf, node) !== segment) roots.push(node)
    else waiting.push(...childrenIn(index, node))
  return roots
}
