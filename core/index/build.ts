import { createWriting, none, read, write, type Writing } from '../base/column.ts'
import type { NodeId } from '../base/ids.ts'
import { emptyNumbering, numberedAll, numberOf, type PackedIds } from '../base/numbering.ts'
import type { OwnLevel } from '../levels/level.ts'
import type { Membership, Person, Team } from '../people/person.ts'
import type { Grant, Limit } from '../rules/entry.ts'
import type { Workspace } from '../rules/workspace.ts'
import type { ContentNode } from '../tree/node.ts'
import { addEntry } from './entries.ts'
import { type AccessIndex, emptyIndex, inLinks, inStretch, inTimes, inTree } from './layout.ts'
import { made, type Making, makingFrom, takeRow, writing } from './making.ts'
import { writeState } from './nodes.ts'
import { addMembership, putPerson, putTeam, setPolicies } from './people.ts'
import { grow, layStretch } from './tree.ts'

/** All that an index is made of, where it is made whole. */
export interface Source {
  readonly workspace: Workspace
  readonly levels: readonly OwnLevel[]
  readonly persons: readonly Person[]
  readonly teams: readonly Team[]
  readonly memberships: readonly Membership[]
  /** The root and every other node, numbered in any order. */
  readonly nodes: PackedIds
  /** By a node's number, the number of its parent; `none` for the root. */
  readonly parents: Int32Array
  /** Those nodes that have a state of their own; no harm in more. */
  readonly special: readonly ContentNode[]
  readonly entries: readonly (Grant | Limit)[]
}

/** The same index as by changes one after the other, at once: some ten passes over what there is. */
export function buildIndex(source: Source): AccessIndex {
  const { workspace, levels, persons, teams, nodes, entries } = source
  const making = makingFrom({
    ...emptyIndex,
    nodes: emptyNumbering(nodes),
    persons: numberedAll(
      emptyIndex.persons,
      persons.map(each => each.id),
    ),
    levels: levels.map(({ id, actions }) => ({ id, actions })),
  })
  setPolicies(making, workspace)
  for (const person of persons) putPerson(making, person)
  for (const team of teams) putTeam(making, team)
  for (const membership of source.memberships) addMembership(making, membership)
  const isHead = markHeads(source)
  const count = isHead.reduce((sum, each) => sum + each, 0)
  making.written.tree = createWriting(nodes.count * inTree.width)
  making.written.sizes = createWriting(nodes.count)
  making.written.stretchOf = createWriting(nodes.count)
  making.written.stretches = createWriting(count * inStretch.width)
  making.written.stretchLinks = createWriting(count * inLinks.width)
  making.written.stretchTimes = createWriting(count * inTimes.width)
  linkAll(making.written.tree, source.parents)
  const order = preorder(making.written.tree, source.parents)
  countAll(making.written.sizes, source.parents, order)
  cut(making, { parents: source.parents, order, isHead })
  for (const node of source.special) writeState(making, node)
  for (const entry of entries) addEntry(making, entry)
  return made(making)
}

/** One byte a node: whether it heads a stretch. */
function markHeads({ nodes, parents, special, entries }: Source): Uint8Array {
  const isHead = new Uint8Array(nodes.count)
  const numbering = emptyNumbering<NodeId>(nodes)
  const mark = (id: NodeId) => {
    const node = numberOf(numbering, id)
    if (node !== undefined) isHead[node] = 1
  }
  for (const { id } of special) mark(id)
  for (const { node } of entries) mark(node)
  for (const [node, parent] of parents.entries()) if (parent === none) isHead[node] = 1
  return isHead
}

function linkAll(tree: Writing, parents: Int32Array): void {
  for (let node = parents.length - 1; node >= 0; node -= 1) {
    const parent = parents[node] as number
    const base = node * inTree.width
    // The whole row is written, the first child last of all: a parent may come before it or after it.
    write(tree, base + inTree.parent, parent)
    if (parent === none) continue
    const first = parent * inTree.width + inTree.first
    const next = first < tree.length ? read(tree, first) : none
    write(tree, base + inTree.next, next)
    write(tree, base + inTree.previous, none)
    if (next !== none) write(tree, next * inTree.width + inTree.previous, node)
    write(tree, first, node)
  }
}

/** All nodes, each parent before its children. */
function preorder(tree: Writing, parents: Int32Array): Int32Array {
  const order = new Int32Array(parents.length)
  const waiting = [parents.indexOf(none)]
  for (let count = 0, node = waiting.pop(); node !== undefined; node = waiting.pop()) {
    order[count] = node
    count += 1
    let child = read(tree, node * inTree.width + inTree.first)
    for (; child !== none; child = read(tree, child * inTree.width + inTree.next)) waiting.push(child)
  }
  return order
}

function countAll(sizes: Writing, parents: Int32Array, order: Int32Array): void {
  const counted = new Int32Array(parents.length).fill(1)
  for (let index = order.length - 1; index > 0; index -= 1) {
    const node = order[index] as number
    const parent = parents[node] as number
    counted[parent] = (counted[parent] as number) + (counted[node] as number)
  }
  for (const [node, size] of counted.entries()) write(sizes, node, size)
}

interface Cutting {
  readonly parents: Int32Array
  readonly order: Int32Array
  readonly isHead: Uint8Array
}

/** Cuts the tree into stretches. */
function cut(making: Making, { parents, order, isHead }: Cutting): void {
  const stretchOf = writing(making, 'stretchOf')
  const within = new Int32Array(parents.length)
  for (const node of order) {
    const parent = parents[node] as number
    const up = parent === none ? none : (within[parent] as number)
    within[node] = up
    if (isHead[node] === 0) continue
    const stretch = takeRow(making, 'freeStretches')
    layStretch(making, { stretch, head: node, up })
    within[node] = stretch
  }
  const counts = new Int32Array(making.index.freeStretches.length)
  for (const [node, stretch] of within.entries()) {
    write(stretchOf, node, stretch)
    counts[stretch] = (counts[stretch] as number) + 1
  }
  for (const [stretch, count] of counts.entries()) grow(making, stretch, count)
}
