import type { NodeId, PersonId } from '../base/ids.ts'
import { idOf, numberOf } from '../base/numbering.ts'
import { none, read } from '../base/vector.ts'
import { inSegment, state as inState } from '../index/layout.ts'
import type { ActionSet } from '../levels/action.ts'
import type { Snapshot, State } from '../state/state.ts'
import { headsBelow, isHead, isWithin, ownAt } from './cut-segments.ts'
import { evaluationOf, personById } from './evaluation-context.ts'
import { isRoot } from './side-by-side.ts'
import { answersFor, rootsIn, visibleAt, visibleCount, type VisibleRows } from './what.ts'

/** What others ask of the engine beyond `check`, `who` and `what`, in ids: it works in numbers, which mean nothing outside. */

/** A place that has something of its own: entries, or a state. */
export interface OwnPlace {
  readonly id: NodeId
  readonly isBinned: boolean
  readonly isPublished: boolean
  /** Whether access at it is another than above it, by its entries or by a state. */
  readonly isException: boolean
}

const differing = inState.broken | inState.draft | inState.archived | inState.published | inState.excluded

/** Whether a place has something of its own: entries, or a state. Costs nothing that grows. */
export function isOwnPlace({ index }: State, node: NodeId): boolean {
  const at = numberOf(index.nodes, node)
  return at !== undefined && isHead(index, at)
}

/** What has something of its own below a place, down the tree; with the place itself, if it is asked for. */
export function* ownPlacesBelow({ index }: State, node: NodeId, withIt = false): Generator<OwnPlace> {
  const from = numberOf(index.nodes, node)
  if (from === undefined) return
  for (const head of withIt ? [from, ...headsBelow(index, from)] : headsBelow(index, from)) {
    const { states, hasEntries } = ownAt(index, head)
    yield {
      id: idOf(index.nodes, head) as NodeId,
      isBinned: (states & inState.binned) !== 0,
      isPublished: (states & inState.published) !== 0,
      isException: hasEntries || (states & differing) !== 0,
    }
  }
}

/** The places that are published themselves. Costs a look at each that has something of its own. */
export function* publishedPlaces({ index }: State): Generator<NodeId> {
  for (let row = 0; row < index.segments.length; row += inSegment.width) {
    const head = read(index.segments, row + inSegment.head)
    const isPublished = (read(index.segments, row + inSegment.state) & inState.published) !== 0
    if (head !== none && isPublished) yield idOf(index.nodes, head) as NodeId
  }
}

/** Whether there is such a place; no record is made for it. */
export const isThere = ({ index }: State, node: NodeId): boolean => numberOf(index.nodes, node) !== undefined

/** How many places a workspace has, and in how many they have something of their own: what long questions cost. */
export const sizesOf = ({ index }: State) => ({
  places: index.nodes.length,
  segments: index.freeSegments.length,
})

/** Whether somebody sees anything below a place that they do not see: one of those is seen without what it lies in. */
export function seesBelow(snapshot: Snapshot, person: PersonId, above: NodeId): boolean {
  const { index } = snapshot.state
  const top = numberOf(index.nodes, above)
  if (top === undefined) return false
  const evaluation = evaluationOf(snapshot)
  const roots = rootsIn(answersFor(evaluation, personById(evaluation, person)))
  return roots.some(root => isWithin(index, root, top))
}

/** A segment of what somebody sees: a place with all below it that they see alike. */
export interface VisiblePlace {
  readonly id: NodeId
  readonly isRoot: boolean
  readonly actions: ActionSet
  /** How many places it is. */
  readonly count: number
  /** Which of those before it it stands in; -1 for none. */
  readonly within: number
}

/** Each after the one that it stands in. Made one after another: thousands of objects a second make long pauses. */
export function* placesIn({ index }: State, rows: VisibleRows): Generator<VisiblePlace> {
  for (let place = 0; place < visibleCount(rows); place += 1) {
    const { node, actions, nodes: count, within } = visibleAt(rows, place)
    yield { id: idOf(index.nodes, node) as NodeId, isRoot: isRoot(index, node), actions, count, within }
  }
}

export const idsIn = ({ index }: State, numbers: Int32Array): NodeId[] =>
  Array.from(numbers, number => idOf(index.nodes, number) as NodeId)
