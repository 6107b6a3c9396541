import { none, read, write } from '../base/column.ts'
import { inLinks, inStretch, inTree } from './layout.ts'
import { giveRowBack, type Making, takeRow, writing } from './making.ts'

/** Hangs a node that stands nowhere under its parent. All that lies below comes along. */
export function hang(making: Making, node: number, parent: number): void {
  link(making, node, parent)
  resize(making, parent, read(writing(making, 'sizes'), node))
}

/** The same without counting it above; under `none` for the root. */
export function link(making: Making, node: number, parent: number): void {
  const tree = writing(making, 'tree')
  const base = node * inTree.width
  const next = parent === none ? none : read(tree, parent * inTree.width + inTree.first)
  write(tree, base + inTree.parent, parent)
  write(tree, base + inTree.next, next)
  write(tree, base + inTree.previous, none)
  if (next !== none) write(tree, next * inTree.width + inTree.previous, node)
  if (parent !== none) write(tree, parent * inTree.width + inTree.first, node)
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

/** The stretch that a node heads; a new one, with no entries and no state, if it heads none yet. */
export function stretchAt(making: Making, node: number): number {
  const stretchOf = writing(making, 'stretchOf')
  const within = read(stretchOf, node)
  const stretches = writing(making, 'stretches')
  if (within !== none && read(stretches, within * inStretch.width + inStretch.head) === node) return within
  const stretch = takeRow(making, 'freeStretches')
  layStretch(making, { stretch, head: node, up: within })
  if (within === none) {
    write(stretchOf, node, stretch)
    grow(making, stretch, 1)
  } else relabel(making, { top: node, was: within, becomes: stretch })
  return stretch
}

interface Laid {
  readonly stretch: number
  readonly head: number
  readonly up: number
}

/** Writes the row of a new stretch, with no entries and no state. */
export function layStretch(making: Making, { stretch, head, up }: Laid): void {
  const stretches = writing(making, 'stretches')
  const base = stretch * inStretch.width
  for (let field = 0; field < inStretch.width; field += 1) write(stretches, base + field, none)
  write(stretches, base + inStretch.head, head)
  write(stretches, base + inStretch.state, 0)
  const links = writing(making, 'stretchLinks')
  write(links, stretch * inLinks.width + inLinks.first, none)
  write(links, stretch * inLinks.width + inLinks.nodes, 0)
  hangStretch(making, stretch, up)
}

/** Ends a stretch whose head has nothing of its own any more: its nodes belong to the one above. */
export function dissolve(making: Making, stretch: number): void {
  const stretches = writing(making, 'stretches')
  const base = stretch * inStretch.width
  const up = read(stretches, base + inStretch.up)
  relabel(making, { top: read(stretches, base + inStretch.head), was: stretch, becomes: up })
  freeStretch(making, stretch)
}

/** Takes the row of a stretch away. It is read as free by its head. */
export function freeStretch(making: Making, stretch: number): void {
  unhangStretch(making, stretch)
  write(writing(making, 'stretches'), stretch * inStretch.width + inStretch.head, none)
  write(writing(making, 'stretchLinks'), stretch * inLinks.width + inLinks.nodes, 0)
  giveRowBack(making, 'freeStretches', stretch)
}

/** Counts so many more nodes in a stretch. */
export function grow(making: Making, stretch: number, by: number): void {
  const links = writing(making, 'stretchLinks')
  const address = stretch * inLinks.width + inLinks.nodes
  write(links, address, read(links, address) + by)
}

/** Puts a node into the stretches of where it stands now, after it was hung elsewhere. */
export function rejoin(making: Making, node: number): void {
  const stretchOf = writing(making, 'stretchOf')
  const stretches = writing(making, 'stretches')
  const parent = read(writing(making, 'tree'), node * inTree.width + inTree.parent)
  const was = read(stretchOf, node)
  const becomes = read(stretchOf, parent)
  if (read(stretches, was * inStretch.width + inStretch.head) === node) {
    unhangStretch(making, was)
    hangStretch(making, was, becomes)
  } else relabel(making, { top: node, was, becomes })
}

interface Relabelling {
  readonly top: number
  readonly was: number
  readonly becomes: number
}

/** From a node down, as far as a stretch goes: its nodes and the stretches that begin in it. Costs as much. */
function relabel(making: Making, { top, was, becomes }: Relabelling): void {
  if (was === becomes) return
  const tree = writing(making, 'tree')
  const stretchOf = writing(making, 'stretchOf')
  const waiting = [top]
  let moved = 0
  for (let node = waiting.pop(); node !== undefined; node = waiting.pop()) {
    const stretch = read(stretchOf, node)
    if (stretch !== was) {
      unhangStretch(making, stretch)
      hangStretch(making, stretch, becomes)
      continue
    }
    write(stretchOf, node, becomes)
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

export function hangStretch(making: Making, stretch: number, up: number): void {
  const links = writing(making, 'stretchLinks')
  const base = stretch * inLinks.width
  const next = up === none ? none : read(links, up * inLinks.width + inLinks.first)
  write(writing(making, 'stretches'), stretch * inStretch.width + inStretch.up, up)
  write(links, base + inLinks.next, next)
  write(links, base + inLinks.previous, none)
  if (next !== none) write(links, next * inLinks.width + inLinks.previous, stretch)
  if (up !== none) write(links, up * inLinks.width + inLinks.first, stretch)
}

export function unhangStretch(making: Making, stretch: number): void {
  const links = writing(making, 'stretchLinks')
  const base = stretch * inLinks.width
  const up = read(writing(making, 'stretches'), stretch * inStretch.width + inStretch.up)
  const previous = read(links, base + inLinks.previous)
  const next = read(links, base + inLinks.next)
  if (next !== none) write(links, next * inLinks.width + inLinks.previous, previous)
  if (previous !== none) write(links, previous * inLinks.width + inLinks.next, next)
  else if (up !== none) write(links, up * inLinks.width + inLinks.first, next)
}
