import { createWriting, none, read, write, type Writing } from '../base/column.ts'
import { emptyNumbering, numberedAll, numberOf, type PackedIds } from '../base/numbering.ts'
import type { OwnLevel } from '../levels/level.ts'
import type { Membership, Person, Team } from '../people/person.ts'
import type { Grant, Limit } from '../rules/entry.ts'
import type { Principal } from '../rules/principal.ts'
import type { Workspace } from '../rules/workspace.ts'
import type { ContentNode } from '../tree/node.ts'
import { principalNumber, putEntry } from './entries.ts'
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

/** The same index as by changes one after the other, at once: some passes over what there is. */
export function buildIndex(source: Source): AccessIndex {
  const { workspace, levels, persons, teams, nodes, parents } = source
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
  const placed = entriesPlaced(making.index, source)
  const isHead = new Uint8Array(nodes.count)
  isHead[parents.indexOf(none)] = 1
  for (const { id } of source.special) isHead[numberOf(making.index.nodes, id) as number] = 1
  for (const { node } of placed) isHead[node] = 1
  makeRoom(making, isHead)
  link(writing(making, 'tree'), parents)
  const order = preorder(writing(making, 'tree'), parents)
  count(writing(making, 'sizes'), parents, order)
  cut(making, { parents, order, isHead })
  for (const node of source.special) writeState(making, node)
  const stretchOf = writing(making, 'stretchOf')
  for (const { row, principal, node } of placed)
    putEntry(making, row, { principal, stretch: read(stretchOf, node) })
  return made(making)
}

interface Placed {
  readonly row: Grant | Limit
  readonly principal: number
  readonly node: number
}

/** Each entry with where it lies and of whom it speaks, in numbers; not those that speak of nobody or lie nowhere. */
function entriesPlaced(index: AccessIndex, { entries }: Source): Placed[] {
  const principals = new Map<Principal, number>()
  const placed: Placed[] = []
  for (const row of entries) {
    let principal = principals.get(row.principal)
    if (principal === undefined) {
      principal = principalNumber(index, row.principal)
      principals.set(row.principal, principal)
    }
    const node = numberOf(index.nodes, row.node)
    if (node !== undefined && principal !== none) placed.push({ row, principal, node })
  }
  return placed
}

/** All in one piece of memory each. */
function makeRoom({ written }: Making, isHead: Uint8Array): void {
  const stretches = isHead.reduce((sum, each) => sum + each, 0)
  written.tree = createWriting(isHead.length * inTree.width)
  written.sizes = createWriting(isHead.length)
  written.stretchOf = createWriting(isHead.length)
  written.stretches = createWriting(stretches * inStretch.width)
  written.stretchLinks = createWriting(stretches * inLinks.width)
  written.stretchTimes = createWriting(stretches * inTimes.width)
}

function link(tree: Writing, parents: Int32Array): void {
  // The last address first: from then on every one of them can be read.
  write(tree, parents.length * inTree.width - 1, none)
  for (let node = parents.length - 1; node >= 0; node -= 1) {
    const parent = parents[node] as number
    const base = node * inTree.width
    write(tree, base + inTree.parent, parent)
    if (parent === none) continue
    const first = parent * inTree.width + inTree.first
    const next = read(tree, first)
    write(tree, base + inTree.next, next)
    if (next !== none) write(tree, next * inTree.width + inTree.previous, node)
    write(tree, first, node)
  }
}

/** All nodes, each parent before its children. */
function preorder(tree: Writing, parents: Int32Array): Int32Array {
  const order = new Int32Array(parents.length)
  const waiting = new Int32Array(parents.length)
  let left = 0
  let done = 0
  for (let node = parents.indexOf(none); ; node = waiting[left] as number) {
    order[done] = node
    done += 1
    let child = read(tree, node * inTree.width + inTree.first)
    for (; child !== none; child = read(tree, child * inTree.width + inTree.next)) {
      waiting[left] = child
      left += 1
    }
    if (left === 0) return order
    left -= 1
  }
}

function count(sizes: Writing, parents: Int32Array, order: Int32Array): void {
  for (let node = parents.length - 1; node >= 0; node -= 1) write(sizes, node, 1)
  for (let index = order.length - 1; index > 0; index -= 1) {
    const node = order[index] as number
    const parent = parents[node] as number
    write(sizes, parent, read(sizes, parent) + read(sizes, node))
  }
}

interface Cutting {
  readonly parents: Int32Array
  readonly order: Int32Array
  readonly isHead: Uint8Array
}

/** Cuts the tree into stretches, numbered in the order in which they are met on the way down. */
function cut(making: Making, { parents, order, isHead }: Cutting): void {
  const within = new Int32Array(parents.length)
  const counts: number[] = []
  for (let index = 0; index < order.length; index += 1) {
    const node = order[index] as number
    const parent = parents[node] as number
    let stretch = parent === none ? none : (within[parent] as number)
    if (isHead[node] === 1) {
      const up = stretch
      stretch = takeRow(making, 'freeStretches')
      layStretch(making, { stretch, head: node, up })
      counts.push(0)
    }
    within[node] = stretch
    counts[stretch] = (counts[stretch] as number) + 1
  }
  const stretchOf = writing(making, 'stretchOf')
  for (let node = within.length - 1; node >= 0; node -= 1) write(stretchOf, node, within[node] as number)
  for (const [stretch, nodes] of counts.entries()) grow(making, stretch, nodes)
}
