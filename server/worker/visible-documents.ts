import { setImmediate } from 'node:timers/promises'
import { evaluationOf, personById } from '#core/access/evaluation-context.ts'
import { type Answers, answerAt, countsOf } from '#core/access/what.ts'
import type { ColumnId, NodeId } from '#core/base/ids.ts'
import { numberOf } from '#core/base/numbering.ts'
import type { PackedIds } from '#core/base/packed-ids.ts'
import { none, read } from '#core/base/vector.ts'
import { inTree } from '#core/index/layout.ts'
import { has } from '#core/levels/action.ts'
import { rootOf, type State } from '#core/state/state.ts'
import type { Thread } from './asking.ts'
import { answersOf, type Seeing } from './by-id.ts'

/** The places of documents, kept in numbers: they are those of an index for as long as its ids are numbered alike. */
export interface DocumentNodes {
  readonly packed: PackedIds
  /** By the number of a document that of its place; `none` where it is not known. */
  nodes: Int32Array
  /** Of those that are of one column, which. */
  readonly columns: Map<number, ColumnId>
  /** Up to which document. */
  last: number
  /** Documents of places that are not known yet: a process may hear of them later than of their words. */
  readonly unknown: Map<number, NodeId>
}

/** Whether what is kept holds for a state. */
export const isNumberedAlike = ({ packed }: DocumentNodes, { index }: State): boolean =>
  index.nodes.packed === packed

export const noDocumentNodes = ({ index }: State): DocumentNodes => ({
  packed: index.nodes.packed,
  nodes: new Int32Array(),
  columns: new Map(),
  last: 0,
  unknown: new Map(),
})

interface Added {
  readonly numbers: Int32Array
  readonly nodes: readonly NodeId[]
  readonly columns: ReadonlyMap<number, ColumnId>
}

/** So many that are not known are asked for again. */
const unknownAtMost = 1000

/** Adds the places of more documents. */
export function addDocuments(
  kept: DocumentNodes,
  { index }: State,
  { numbers, nodes, columns }: Added,
): void {
  for (const [number, column] of columns) kept.columns.set(number, column)
  const last = numbers.at(-1) ?? 0
  if (last >= kept.nodes.length) {
    const longer = new Int32Array(Math.max(1024, Math.ceil(last * 1.25) + 1)).fill(none)
    longer.set(kept.nodes)
    kept.nodes = longer
  }
  for (const [number, id] of kept.unknown) {
    const node = numberOf(index.nodes, id)
    if (node === undefined) continue
    kept.nodes[number] = node
    kept.unknown.delete(number)
  }
  for (let at = 0; at < numbers.length; at += 1) {
    const id = nodes[at] as NodeId
    const node = numberOf(index.nodes, id)
    if (node === undefined) kept.unknown.set(numbers[at] as number, id)
    else kept.nodes[numbers[at] as number] = node
  }
  for (const number of kept.unknown.keys())
    if (kept.unknown.size > unknownAtMost) kept.unknown.delete(number)
    else break
  kept.last = Math.max(kept.last, last)
}

export interface Looking extends Seeing {
  readonly kept: DocumentNodes
  /** In which they have to lie. */
  readonly within: NodeId | null
  readonly seesColumn: (column: ColumnId) => boolean
}

/**
 * What somebody sees of the documents of a workspace. A number may by now be that of another place: whoever tells
 * anything of one asks again by its id.
 */
export interface DocumentsSeen {
  readonly answers: Answers
  readonly nodes: Int32Array
  /** Documents that are of one column, which the asker has to see, too. */
  readonly columns: ReadonlyMap<number, ColumnId>
  readonly seesColumn: (column: ColumnId) => boolean
  /** The columns as they are: what was found by others does not hold. */
  readonly columnsOf: State['columns']
  /** `none` for anywhere. */
  readonly within: number
  /** Whether there is nothing that they do not see. */
  readonly seesAll: boolean
}

/** `undefined` for whom there is nothing. */
export async function documentsSeen(
  thread: Thread,
  { kept, within, seesColumn, ...of }: Looking,
): Promise<DocumentsSeen | undefined> {
  const { snapshot, person } = of
  const own = personById(evaluationOf(snapshot), person)
  const inside = within === null ? none : numberOf(snapshot.state.index.nodes, within)
  if (own === none || inside === undefined) return undefined
  const answers = await answersOf(thread, of, own)
  return {
    answers,
    nodes: kept.nodes.subarray(0, kept.last + 1),
    columns: kept.columns,
    seesColumn,
    columnsOf: snapshot.state.columns,
    within: inside,
    seesAll: seesAll(answers, snapshot.state) && [...new Set(kept.columns.values())].every(seesColumn),
  }
}

/** The first so many of some documents that are seen. Costs two reads a document, and the way up for those that are seen. */
export function visibleOf(seen: DocumentsSeen, numbers: Iterable<number>, most: number): number[] {
  const found: number[] = []
  for (const number of numbers) {
    if (found.length >= most) break
    if (isVisible(seen, number)) found.push(number)
  }
  return found
}

function isVisible({ answers, nodes, columns, seesColumn, within }: DocumentsSeen, number: number): boolean {
  const node = nodes[number] ?? none
  if (node === none || !has(answerAt(answers, node), 'see')) return false
  const column = columns.size === 0 ? undefined : columns.get(number)
  if (column !== undefined && !seesColumn(column)) return false
  return within === none || isIn(answers, node, within)
}

function isIn({ index: { tree } }: Answers, node: number, within: number): boolean {
  let up = node
  while (up !== none && up !== within) up = read(tree, up * inTree.width + inTree.parent)
  return up === within
}

/** What was found of who sees few, up to which document, by what they have to lie in. */
interface Few {
  readonly numbers: number[]
  last: number
}

const few = new WeakMap<Answers, { readonly columns: State['columns']; readonly byPlace: Map<number, Few> }>()
const placesKept = 8
/** Others are let in after so many. */
const together = 20_000

/** All that is seen, if it is no more than so many. Costs a look at each document there is, once for the same answers. */
export async function fewDocuments(
  seen: DocumentsSeen,
  most: number,
): Promise<readonly number[] | undefined> {
  const { answers, nodes, within, columnsOf: columns } = seen
  const before = few.get(answers)
  const byPlace = before?.columns === columns ? before.byPlace : new Map<number, Few>()
  few.set(answers, { columns, byPlace })
  const found = byPlace.get(within) ?? { numbers: [], last: -1 }
  if (!byPlace.has(within) && byPlace.size >= placesKept) byPlace.clear()
  byPlace.set(within, found)
  while (found.numbers.length <= most && found.last < nodes.length - 1) {
    const until = Math.min(found.last + together, nodes.length - 1)
    for (let number = found.last + 1; number <= until; number += 1)
      if (isVisible(seen, number)) found.numbers.push(number)
    found.last = until
    if (until < nodes.length - 1) await setImmediate()
  }
  return found.numbers.length <= most ? found.numbers : undefined
}

const known = new WeakMap<Answers, boolean>()

function seesAll(answers: Answers, state: State): boolean {
  const before = known.get(answers)
  if (before !== undefined) return before
  // The root is no place, whether it is seen or not.
  const root = numberOf(state.index.nodes, rootOf(state).id) ?? none
  let count = has(answerAt(answers, root), 'see') ? -1 : 0
  for (const [actions, nodes] of countsOf(answers)) if (has(actions, 'see')) count += nodes
  const all = count >= answers.index.nodes.length - 1
  known.set(answers, all)
  return all
}
