import { none, read, write } from '../base/vector.ts'
import type { NodeId } from '../base/ids.ts'
import { numberedAll, numberOf, unnumbered } from '../base/numbering.ts'
import type { ContentNode } from '../tree/node.ts'
import { dissolveIfPlain, dropEntries } from './entries.ts'
import { type AccessIndex, inSegment, inTree, state } from './layout.ts'
import { type Changed, type Making, reading, writing } from './making.ts'
import { freeSegment, grow, hang, type Hanging, link, rejoin, resize, segmentAt, unhang } from './tree.ts'

/** Nodes that come, go, move or get another state. Their parents may be among them, before or after them. */
export function changeNodes(making: Making, changes: readonly Changed<ContentNode>[]): void {
  const number = ({ id }: ContentNode) => numberOf(making.index.nodes, id) as number
  createAll(
    making,
    changes.flatMap(({ before, after }) => (before === null && after !== null ? [after] : [])),
  )
  const moved = changes.flatMap(({ before, after }) =>
    before !== null && after !== null && before.parent !== after.parent ? [after] : [],
  )
  for (const node of moved) unhang(making, number(node))
  const last = new Map<number, number>()
  for (const node of newestFirst(moved)) {
    const parent = parentNumber(making, node)
    hangSafely(making, { node: number(node), parent, near: last.get(parent) })
    last.set(parent, number(node))
  }
  for (const node of deepestFirst(making, moved.map(number))) rejoin(making, node)
  for (const { after } of changes) if (after !== null) setState(making, after)
  const gone = changes.flatMap(({ before, after }) => (before !== null && after === null ? [before] : []))
  const ids = new Map(gone.map(node => [number(node), node.id]))
  for (const node of deepestFirst(making, [...ids.keys()])) remove(making, node, ids.get(node) as NodeId)
}

/** Every walk up the tree ends: a state in which a node stands in itself cannot be made. */
function hangSafely(making: Making, hanging: Hanging): void {
  const { node, parent } = hanging
  const tree = reading(making, 'tree')
  for (let above = parent; above !== none; above = read(tree, above * inTree.width + inTree.parent))
    if (above === node) throw new Error('a node would stand in itself')
  hang(making, hanging)
}

/** The order in which siblings are linked fastest. */
const newestFirst = (nodes: readonly ContentNode[]): readonly ContentNode[] =>
  nodes.length < 2 ? nodes : nodes.toSorted((a, b) => (a.id < b.id ? 1 : -1))

const parentNumber = ({ index }: Making, { parent }: ContentNode): number =>
  parent === null ? none : (numberOf(index.nodes, parent) ?? none)

function createAll(making: Making, nodes: readonly ContentNode[]): void {
  if (nodes.length === 0) return
  const numbers = numberedAll(
    making.index.nodes,
    nodes.map(node => node.id),
  )
  making.index.nodes = numbers
  const inOrder = parentsFirst(newestFirst(nodes))
  const last = new Map<number, number>()
  for (const node of inOrder) create(making, node, last)
  // From below: what is counted in a parent that is new too is counted above with that.
  const isNew = new Set(nodes.map(node => node.id))
  const sizes = writing(making, 'sizes')
  for (const node of inOrder.toReversed()) {
    const parent = parentNumber(making, node)
    const size = read(sizes, numberOf(numbers, node.id) as number)
    if (node.parent !== null && isNew.has(node.parent)) write(sizes, parent, read(sizes, parent) + size)
    else resize(making, parent, size)
  }
}

function parentsFirst(nodes: readonly ContentNode[]): ContentNode[] {
  const waiting = new Map(nodes.map(node => [node.id, node]))
  const inOrder: ContentNode[] = []
  for (const node of nodes) {
    const chain: ContentNode[] = []
    for (let next: ContentNode | undefined = node; next !== undefined && waiting.has(next.id);) {
      chain.push(next)
      waiting.delete(next.id)
      next = next.parent === null ? undefined : waiting.get(next.parent)
    }
    const above = chain.at(-1)?.parent
    if (chain.some(each => each.id === above)) throw new Error('a node would stand in itself')
    inOrder.push(...chain.toReversed())
  }
  return inOrder
}

/** `last` has, by parent, the node that was linked last. */
function create(making: Making, node: ContentNode, last: Map<number, number>): void {
  const number = numberOf(making.index.nodes, node.id) as number
  const tree = writing(making, 'tree')
  for (let field = 0; field < inTree.width; field += 1) write(tree, number * inTree.width + field, none)
  write(writing(making, 'sizes'), number, 1)
  const segmentOf = writing(making, 'segmentOf')
  write(segmentOf, number, none)
  const parent = parentNumber(making, node)
  link(making, { node: number, parent, near: last.get(parent) })
  last.set(parent, number)
  if (parent === none) segmentAt(making, number)
  else {
    write(segmentOf, number, read(segmentOf, parent))
    grow(making, read(segmentOf, parent), 1)
  }
}

/** The last of its branch: what lay below went or moved before it. */
function remove(making: Making, node: number, id: NodeId): void {
  unhang(making, node)
  const segment = read(reading(making, 'segmentOf'), node)
  const segments = writing(making, 'segments')
  if (read(segments, segment * inSegment.width + inSegment.head) === node) {
    dropEntries(making, segment)
    freeSegment(making, segment)
  } else grow(making, segment, -1)
  making.index.nodes = unnumbered(making.index.nodes, id)
}

function setState(making: Making, node: ContentNode): void {
  const number = numberOf(making.index.nodes, node.id) as number
  const within = read(reading(making, 'segmentOf'), number) * inSegment.width
  const isHead = read(reading(making, 'segments'), within + inSegment.head) === number
  if (isHead || stateOf(making.index, node) !== 0) dissolveIfPlain(making, writeState(making, node))
}

/** Writes what a node's own state is; it heads a segment from then on, whose number is given back. */
export function writeState(making: Making, node: ContentNode): number {
  const segment = segmentAt(making, numberOf(making.index.nodes, node.id) as number)
  const segments = writing(making, 'segments')
  const base = segment * inSegment.width
  write(segments, base + inSegment.state, stateOf(making.index, node))
  write(segments, base + inSegment.maker, numberOf(making.index.persons, node.maker) ?? none)
  return segment
}

function stateOf({ teams }: AccessIndex, node: ContentNode): number {
  const team = node.home?.of === 'team' ? (numberOf(teams, node.home.team) ?? none) : none
  return (
    (node.broken === null ? 0 : state.broken) |
    (node.draft ? state.draft : 0) |
    (node.archived ? state.archived : 0) |
    (node.binned === null ? 0 : state.binned) |
    (node.web === 'published' ? state.published : 0) |
    (node.web === 'excluded' ? state.excluded : 0) |
    (node.home === null ? 0 : state.home) |
    ((team + 1) << state.teamShift)
  )
}

function deepestFirst(making: Making, nodes: readonly number[]): number[] {
  if (nodes.length < 2) return [...nodes]
  const tree = reading(making, 'tree')
  const depthOf = (from: number) => {
    let depth = 0
    for (let node = from; node !== none; node = read(tree, node * inTree.width + inTree.parent)) depth += 1
    return depth
  }
  return nodes
    .map(node => ({ node, depth: depthOf(node) }))
    .sort((a, b) => b.depth - a.depth)
    .map(each => each.node)
}
