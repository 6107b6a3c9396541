import { none, pageShift, read } from '../base/vector.ts'
import type { NodeId } from '../base/ids.ts'
import { numberOf } from '../base/numbering.ts'
import { type AccessIndex, inSegment, inTree, state } from '../index/layout.ts'
import { type Class, type Classes, enter, leave, type Side, type Sides } from './classes.ts'
import { statesOf } from './evaluate.ts'
import { type Cuts, openCutSegment, type CutSegments, cutSegmentsBelow } from './cut-segments.ts'

/**
 * Two states of a tree side by side, below the places at which they differ: cut into segments in which every node
 * answers alike to everybody, in both. Costs what the segments below cost, not the places between.
 */

/** A place at which something differs, by its number on each side; `none` where it is not there. */
export type Start = Sides<number>

export type Indexes = Sides<AccessIndex>

/** What lies below is met from each of these once, and from the nearest one. */
export function startsAt([was, is]: Indexes, roots: Iterable<NodeId>): Start[] {
  const starts: Start[] = []
  for (const id of roots) {
    const before = numberOf(was.nodes, id) ?? none
    const after = was.nodes === is.nodes ? before : (numberOf(is.nodes, id) ?? none)
    if (before !== none || after !== none) starts.push([before, after])
  }
  return starts
}

/** What lies below a start, on the side on which it is walked: where it is not there any more, as it was. */
export interface Below {
  readonly start: Start
  readonly side: Side
  readonly cuts: Cuts
}

export function belowEach(indexes: Indexes, starts: readonly Start[]): Below[] {
  const cuts: { 0?: Cuts; 1?: Cuts } = {}
  return starts.map(start => {
    const side: Side = start[1] === none ? 0 : 1
    return { start, side, cuts: (cuts[side] ??= cutsFor(indexes, starts, side)) }
  })
}

export const cutSegmentsAt = (indexes: Indexes, { start, side, cuts }: Below): CutSegments =>
  cutSegmentsBelow(indexes[side], start[side], cuts)

function cutsFor(indexes: Indexes, starts: readonly Start[], side: Side): Cuts {
  const index = indexes[side]
  const other = indexes[side === 0 ? 1 : 0]
  const [nodes, segments, alone] = [new Set<number>(), new Set<number>(), new Set<number>()]
  for (const start of starts) {
    const node = start[side]
    if (node === none) continue
    nodes.add(node)
    // A segment that begins at the node itself is not cut by it.
    const segment = read(index.segmentOf, node)
    if (read(index.segments, segment * segmentWidth + headAt) !== node) segments.add(segment)
    if (draftAt(other, start[1 - side] as number) !== undefined || isRoot(index, node)) alone.add(node)
  }
  return { nodes, segments, alone }
}

/** The root is no place that anybody is told of: what lies in it stands apart. */
export const isRoot = ({ tree }: AccessIndex, node: number): boolean =>
  read(tree, node * inTree.width + inTree.parent) === none

/** Who made a draft; `undefined` where there is none. */
export function draftAt({ segmentOf, segments }: AccessIndex, node: number): number | undefined {
  if (node === none) return undefined
  const base = read(segmentOf, node) * inSegment.width
  const isIt =
    read(segments, base + inSegment.head) === node &&
    (read(segments, base + inSegment.state) & state.draft) !== 0
  return isIt ? read(segments, base + inSegment.maker) : undefined
}

/**
 * A cut segment as the walk comes to it: the classes of people hold what they are given there on each side. The same
 * object each time.
 */
export interface Met {
  /** Its top, and that on each side: `none` where it is not there. */
  top: number
  was: number
  is: number
  nodes: number
  /** In how many other cut segments below the start it lies. */
  depth: number
  /** The states on the way up. */
  statesBefore: number
  statesAfter: number
}

/**
 * Comes to each cut segment below a start, each after the one in which it lies; not to those in one of which `visit` answers
 * that everybody is the same there on both sides, since so they are then in all that lies in it.
 */
export function walkBelow(
  classes: Classes,
  { start, side, cuts }: Below,
  visit: (met: Met) => boolean,
): void {
  const { index } = classes.sides[side]
  const met: Met = { top: 0, was: 0, is: 0, nodes: 0, depth: 0, statesBefore: 0, statesAfter: 0 }
  const waiting = [start[side]]
  // Where the way down stands: how many cut segments wait above each, how much is to be taken back, and the states met.
  const waitingAbove: number[] = []
  const undoings: number[] = []
  const before: number[] = []
  const after: number[] = []
  let isFirst = true
  while (waiting.length > 0) {
    const top = waiting.pop() as number
    while (waitingAbove.length > 0 && (waitingAbove[waitingAbove.length - 1] as number) > waiting.length) {
      leave(classes, undoings.pop() as number)
      waitingAbove.pop()
      before.pop()
      after.pop()
    }
    undoings.push(classes.undoing.length)
    met.top = top
    // Below a start that one side lacks, that side has nothing.
    met.was = isFirst || start[0] === end ? start[0] : top
    met.is = isFirst || start[1] === end ? start[1] : top
    isFirst = false
    met.depth = before.length
    met.statesBefore = goDown(classes, 0, { node: met.was, above: before[before.length - 1] })
    met.statesAfter = goDown(classes, 1, { node: met.is, above: after[after.length - 1] })
    const waited = waiting.length
    met.nodes = openCutSegment({ index, cuts, waiting }, top)
    if (visit(met)) waiting.length = waited
    waitingAbove.push(waited)
    before.push(met.statesBefore)
    after.push(met.statesAfter)
  }
  leave(classes, 0)
}

// Their own copies: what is imported is looked up anew at each use.
const end = none
const { width: segmentWidth, head: headAt, state: stateAt, up: upAt } = inSegment
const shift = pageShift
const inPage = (1 << shift) - 1

interface Down {
  readonly node: number
  /** The states met above; `undefined` at a start. */
  readonly above: number | undefined
}

/** Down into the segment that begins at a node, if one does; at the start through all that lie above. */
function goDown(classes: Classes, side: Side, { node, above }: Down): number {
  if (node === end) return state.binned
  const { index } = classes.sides[side]
  const segment = read(index.segmentOf, node)
  const row = segment * segmentWidth
  if (above !== undefined) {
    const page = index.segments.pages[row >> shift] as Int32Array
    const at = row & inPage
    if (page[at + headAt] !== node) return above
    enter(classes, side, segment)
    const states = page[at + stateAt] as number
    return states === 0 ? above : above | statesOf(index, states)
  }
  const way: number[] = []
  for (let each = segment; each !== end; each = read(index.segments, each * segmentWidth + upAt))
    way.push(each)
  let states = 0
  for (let place = way.length - 1; place >= 0; place -= 1) {
    const each = way[place] as number
    enter(classes, side, each)
    states |= statesOf(index, read(index.segments, each * segmentWidth + stateAt))
  }
  return states
}

/** Every segment that has a say below some starts, on each side: those above, and those that begin there. */
export function eachSegment(
  indexes: Indexes,
  starts: readonly Start[],
  visit: (side: Side, segment: number) => void,
): void {
  eachSegmentAbove(indexes, starts, visit)
  for (const below of belowEach(indexes, starts)) {
    const { roots } = cutSegmentsAt(indexes, below)
    for (const side of [0, 1] as const) {
      if (below.start[side] === none) continue
      const { segments, segmentOf } = indexes[side]
      for (let place = 1; place < roots.length; place += 1) {
        const top = roots[place] as number
        const segment = read(segmentOf, top)
        if (read(segments, segment * inSegment.width + inSegment.head) === top) visit(side, segment)
      }
    }
  }
}

/** Every segment that has a say at some starts themselves. */
export function eachSegmentAbove(
  indexes: Indexes,
  starts: readonly Start[],
  visit: (side: Side, segment: number) => void,
): void {
  for (const side of [0, 1] as const) {
    const above = new Set<number>()
    const { segments, segmentOf } = indexes[side]
    for (const start of starts) {
      if (start[side] === none) continue
      for (let each = read(segmentOf, start[side]); each !== none && !above.has(each);) {
        above.add(each)
        visit(side, each)
        each = read(segments, each * inSegment.width + inSegment.up)
      }
    }
  }
}

/** The class of the only person that classes were made for. */
export const onlyClass = ({ classOf, list }: Classes): Class => list[classOf[0] as number] as Class
