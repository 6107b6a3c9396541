import { createFull, none, read, writingIn } from '../base/vector.ts'
import { emptyNumbering, numberedAll, numberOf } from '../base/numbering.ts'
import type { PackedIds } from '../base/packed-ids.ts'
import type { OwnLevel } from '../levels/level.ts'
import type { Membership, Person, Team } from '../people/person.ts'
import type { Grant, Limit } from '../rules/access-entry.ts'
import type { Principal } from '../rules/principal.ts'
import type { Workspace } from '../rules/workspace.ts'
import type { ContentNode } from '../tree/node.ts'
import { principalNumber, putEntry, type EntryRow } from './entries.ts'
import { type AccessIndex, emptyIndex, inLinks, inSegment, inTimes, inTree } from './layout.ts'
import { made, type Making, makingFrom, takeRow, writing } from './making.ts'
import { writeState } from './nodes.ts'
import { addMembership, putPerson, putTeam, setPolicies } from './people.ts'
import { grow, laySegment } from './tree.ts'

/** All that an index is made of, where it is made whole. */
export interface Source {
  readonly workspace: Workspace
  readonly levels: readonly OwnLevel[]
  readonly persons: readonly Person[]
  readonly teams: readonly Team[]
  readonly memberships: readonly Membership[]
  /** The root and every other node, numbered in the order of their ids. */
  readonly nodes: PackedIds
  /** By a node's number, the number of its parent; `none` for the root. */
  readonly parents: Int32Array
  /** Those nodes that have a state of their own; no harm in more. */
  readonly special: readonly ContentNode[]
  readonly entries: readonly EntryVectors[]
}

/** Grants, or limits, vector by vector: by the hundred thousand they are not made as records. */
export interface EntryVectors {
  readonly count: number
  /** The number of the node at which each lies; `none` for one that lies nowhere. */
  readonly places: Int32Array
  /** Of whom they speak, each once, and by entry which of these. */
  readonly principals: readonly Principal[]
  readonly spokenOf: Int32Array
  readonly entryAt: (entry: number) => EntryRow
}

/** The vectors of entries that are at hand as records. */
export function entryVectors(
  entries: readonly (Grant | Limit)[],
  numberOfNode: (id: string) => number,
): EntryVectors {
  const principals = [...new Set(entries.map(each => each.principal))]
  const numbers = new Map(principals.map((principal, number) => [principal, number]))
  return {
    count: entries.length,
    places: Int32Array.from(entries, ({ node }) => numberOfNode(node)),
    principals,
    spokenOf: Int32Array.from(entries, ({ principal }) => numbers.get(principal) ?? none),
    entryAt: entry => entries[entry] as Grant | Limit,
  }
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
  const isHead = new Uint8Array(nodes.count)
  isHead[parents.indexOf(none)] = 1
  for (const { id } of source.special) isHead[numberOf(making.index.nodes, id) as number] = 1
  const placed = source.entries.map(entries => placedOf(making.index, entries))
  for (const { principals, places } of placed)
    for (let entry = 0; entry < principals.length; entry += 1)
      if (principals[entry] !== none) isHead[places[entry] as number] = 1
  const order = parentsFirst(parents)
  link(making, parents, order)
  cut(making, { parents, order, isHead })
  for (const node of source.special) writeState(making, node)
  for (const entries of placed) putAll(making, entries)
  return made(making)
}

interface Placed extends Omit<EntryVectors, 'principals'> {
  /** Of whom each speaks, in numbers; `none` for one that speaks of nobody or lies nowhere. */
  readonly principals: Int32Array
}

function placedOf(index: AccessIndex, entries: EntryVectors): Placed {
  const numbers = entries.principals.map(each => principalNumber(index, each))
  const principals = entries.spokenOf.map((spokenOf, entry) =>
    entries.places[entry] === none ? none : (numbers[spokenOf] as number),
  )
  return { ...entries, principals }
}

function putAll(making: Making, { principals, places, entryAt }: Placed): void {
  const segmentOf = writing(making, 'segmentOf')
  for (let entry = 0; entry < principals.length; entry += 1) {
    const principal = principals[entry] as number
    if (principal !== none)
      putEntry(making, entryAt(entry), { principal, segment: read(segmentOf, places[entry] as number) })
  }
}

/** All nodes, each parent before its children, and else as they are numbered: what lies together is read together. */
function parentsFirst(parents: Int32Array): Int32Array {
  const order = new Int32Array(parents.length)
  const isIn = new Uint8Array(parents.length)
  const above: number[] = []
  let done = 0
  for (let node = 0; node < parents.length; node += 1) {
    for (let next = node; next !== none && isIn[next] === 0; next = parents[next] as number) {
      above.push(next)
      if (above.length > parents.length) throw new Error('a node stands in itself')
    }
    for (let next = above.pop(); next !== undefined; next = above.pop()) {
      isIn[next] = 1
      order[done] = next
      done += 1
    }
  }
  return order
}

const { width, first, next, previous } = inTree

/** Links the tree and counts what is below each node. */
function link({ written }: Making, parents: Int32Array, order: Int32Array): void {
  const tree = createFull(parents.length * width)
  const sizes = createFull(parents.length).fill(1, 0, parents.length)
  // As they are numbered, each before the one that was linked last: siblings stand with the newest id first.
  for (let node = 0; node < parents.length; node += 1) {
    const parent = parents[node] as number
    tree[node * width] = parent
    if (parent === none) continue
    const sibling = tree[parent * width + first] as number
    tree[node * width + next] = sibling
    if (sibling !== none) tree[sibling * width + previous] = node
    tree[parent * width + first] = node
  }
  for (let index = order.length - 1; index >= 0; index -= 1) {
    const node = order[index] as number
    const parent = parents[node] as number
    if (parent !== none) sizes[parent] = (sizes[parent] as number) + (sizes[node] as number)
  }
  written.tree = writingIn(tree, parents.length * width)
  written.sizes = writingIn(sizes, parents.length)
}

interface Cutting {
  readonly parents: Int32Array
  readonly order: Int32Array
  readonly isHead: Uint8Array
}

/** Cuts the tree into segments, numbered in that order. */
function cut(making: Making, { parents, order, isHead }: Cutting): void {
  const segments = isHead.reduce((sum, each) => sum + each, 0)
  making.written.segments = writingIn(createFull(segments * inSegment.width), 0)
  making.written.segmentLinks = writingIn(createFull(segments * inLinks.width), 0)
  making.written.segmentTimes = writingIn(createFull(segments * inTimes.width), 0)
  const within = createFull(parents.length)
  const counts: number[] = []
  for (let index = 0; index < order.length; index += 1) {
    const node = order[index] as number
    const parent = parents[node] as number
    let segment = parent === none ? none : (within[parent] as number)
    if (isHead[node] === 1) {
      const up = segment
      segment = takeRow(making, 'freeSegments')
      laySegment(making, { segment, head: node, up })
      counts.push(0)
    }
    within[node] = segment
    counts[segment] = (counts[segment] as number) + 1
  }
  making.written.segmentOf = writingIn(within, parents.length)
  for (const [segment, nodes] of counts.entries()) grow(making, segment, nodes)
}
