import { comesAfter } from '../base/numbering.ts'
import { none, read, write } from '../base/vector.ts'
import { inLinks, inSegment, inTree } from './layout.ts'
import { giveRowBack, type Making, takeRow, writing } from './making.ts'

export interface Hanging {
  readonly node: number
  readonly parent: number
  /** A sibling, from which on it is looked for its place. */
  readonly near: number | undefined
}

/** Hangs a node that stands nowhere under its parent. All that lies below comes along. */
export function hang(making: Making, hanging: Hanging): void {
  const { node, parent } = hanging
  link(making, hanging)
  resize(making, parent, read(writing(making, 'sizes'), node))
}

/**
 * The same without counting it above; under `none` for the root. Siblings stand in one order, the newest id first: two
 * indexes of the same records are walked alike. Costs a look at each sibling with a later id, from `near` on if that has
 * one: many that come in that order are linked as fast as one.
 */
export function link(making: Making, { node, parent, near = none }: Hanging): void {
  const tree = writing(making, 'tree')
  const ids = making.index.nodes
  const nextOf = (sibling: number) => read(tree, sibling * inTree.width + inTree.next)
  const first = parent === none ? none : read(tree, parent * inTree.width + inTree.first)
  let previous = near !== none && comesAfter(ids, near, node) ? near : none
  let next = previous === none ? first : nextOf(previous)
  for (; next !== none && comesAfter(ids, next, node); next = nextOf(next)) previous = next
  const base = node * inTree.width
  write(tree, base + inTree.parent, parent)
  write(tree, base + inTree.next, next)
  write(tree, base + inTree.previous, previous)
  if (next !== none) write(tree, next * inTree.width + inTree.previous, node)
  if (previous !== none) write(tree, previous * inTree.width + inTree.next, node)
  else if (parent !== none) write(tree, parent * inTree.width + inTree.first, node)
}

/** Takes a node from under its parent. */
export function unhang(making: Making, node: number): void {
  const tree = writing(making, 'tree')
  const base = node * inTree.width
  const parent = read(tree, base + inTree.parent)
  const previous = read(tree, base + inTree.previous)
  const next = read(tree, base + inTree.next)
  if (next !== none) write(tree, next * inTree.width + inTree.previous, previous)
  if (previous !== none) write(tree, previous * inTree.width + inTree.next, next)
  else if (parent !== none) write(tree, parent * inTree.width + inTree.first, next)
  write(tree, base + inTree.parent, none)
  resize(making, parent, -read(writing(making, 'sizes'), node))
}

/** Counts so many more nodes at a node and all above it. */
export function resize(making: Making, from: number, by: number): void {
  const sizes = writing(making, 'sizes')
  const tree = writing(making, 'tree')
  for (let node = from; node !== none; node = read(tree, node * inTree.width + inTree.parent))
    write(sizes, node, read(sizes, node) + by)
}

/** The segment that a node heads; a new one, with no entries and no state, if it heads none yet. */
export function segmentAt(making: Making, node: number): number {
  const segmentOf = writing(making, 'segmentOf')
  const within = read(segmentOf, node)
  const segments = writing(making, 'segments')
  if (within !== none && read(segments, within * inSegment.width + inSegment.head) === node) return within
  const segment = takeRow(making, 'freeSegments')
  laySegment(making, { segment, head: node, up: within })
  if (within === none) {
    write(segmentOf, node, segment)
    grow(making, segment, 1)
  } else relabel(making, { top: node, was: within, becomes: segment })
  return segment
}

interface Laid {
  readonly segment: number
  readonly head: number
  readonly up: number
}

/** Writes the row of a new segment, with no entries and no state. */
export function laySegment(making: Making, { segment, head, up }: Laid): void {
  const segments = writing(making, 'segments')
  const base = segment * inSegment.width
  for (let field = 0; field < inSegment.width; field += 1) write(segments, base + field, none)
  write(segments, base + inSegment.head, head)
  write(segments, base + inSegment.state, 0)
  const links = writing(making, 'segmentLinks')
  write(links, segment * inLinks.width + inLinks.first, none)
  write(links, segment * inLinks.width + inLinks.nodes, 0)
  hangSegment(making, segment, up)
}

/** Ends a segment whose head has nothing of its own any more: its nodes belong to the one above. */
export function dissolve(making: Making, segment: number): void {
  const segments = writing(making, 'segments')
  const base = segment * inSegment.width
  const up = read(segments, base + inSegment.up)
  relabel(making, { top: read(segments, base + inSegment.head), was: segment, becomes: up })
  freeSegment(making, segment)
}

/** Takes the row of a segment away. It is read as free by its head. */
export function freeSegment(making: Making, segment: number): void {
  unhangSegment(making, segment)
  write(writing(making, 'segments'), segment * inSegment.width + inSegment.head, none)
  write(writing(making, 'segmentLinks'), segment * inLinks.width + inLinks.nodes, 0)
  giveRowBack(making, 'freeSegments', segment)
}

/** Counts so many more nodes in a segment. */
export function grow(making: Making, segment: number, by: number): void {
  const links = writing(making, 'segmentLinks')
  const address = segment * inLinks.width + inLinks.nodes
  write(links, address, read(links, address) + by)
}

/** Puts a node into the segments of where it stands now, after it was hung elsewhere. */
export function rejoin(making: Making, node: number): void {
  const segmentOf = writing(making, 'segmentOf')
  const segments = writing(making, 'segments')
  const parent = read(writing(making, 'tree'), node * inTree.width + inTree.parent)
  const was = read(segmentOf, node)
  const becomes = read(segmentOf, parent)
  if (read(segments, was * inSegment.width + inSegment.head) === node) {
    unhangSegment(making, was)
    hangSegment(making, was, becomes)
  } else relabel(making, { top: node, was, becomes })
}

interface Relabelling {
  readonly top: number
  readonly was: number
  readonly becomes: number
}

/** From a node down, as far as a segment goes: its nodes and the segments that begin in it. Costs as much. */
function relabel(making: Making, { top, was, becomes }: Relabelling): void {
  if (was === becomes) return
  const tree = writing(making, 'tree')
  const segmentOf = writing(making, 'segmentOf')
  const waiting = [top]
  let moved = 0
  for (let node = waiting.pop(); node !== undefined; node = waiting.pop()) {
    const segment = read(segmentOf, node)
    if (segment !== was) {
      unhangSegment(making, segment)
      hangSegment(making, segment, becomes)
      continue
    }
    write(segmentOf, node, becomes)
    moved += 1
    for (
      let child = read(tree, node * inTree.width + inTree.first);
      child !== none;
      child = read(tree, child * inTree.width + inTree.next)
    )
      waiting.push(child)
  }
  grow(making, was, -moved)
  grow(making, becomes, moved)
}

export function hangSegment(making: Making, segment: number, up: number): void {
  const links = writing(making, 'segmentLinks')
  const base = segment * inLinks.width
  const next = up === none ? none : read(links, up * inLinks.width + inLinks.first)
  write(writing(making, 'segments'), segment * inSegment.width + inSegment.up, up)
  write(links, base + inLinks.next, next)
  write(links, base + inLinks.previous, none)
  if (next !== none) write(links, next * inLinks.width + inLinks.previous, segment)
  if (up !== none) write(links, up * inLinks.width + inLinks.first, segment)
}

export function unhangSegment(making: Making, segment: number): void {
  const links = writing(making, 'segmentLinks')
  const base = segment * inLinks.width
  const up = read(writing(making, 'segments'), segment * inSegment.width + inSegment.up)
  const previous = read(links, base + inLinks.previous)
  const next = read(links, base + inLinks.next)
  if (next !== none) write(links, next * inLinks.width + inLinks.previous, previous)
  if (previous !== none) write(links, previous * inLinks.width + inLinks.next, next)
  else if (up !== none) write(links, up * inLinks.width + inLinks.first, next)
}
