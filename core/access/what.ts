import { type Vector, none, pageShift, read } from '../base/vector.ts'
import { type AccessIndex, guests, inEntry, inLinks, inSegment, inTree, state } from '../index/layout.ts'
import { forEachSegment } from '../index/walk.ts'
import { type ActionSet, everyAction, noActions } from '../levels/action.ts'
import { addOwn, afterStates, capped, createSum, hidesAsDraft, statesOf, type Sum } from './evaluate.ts'
import { createMarks, mark, type Marks, markMask } from './marks.ts'
import { childrenIn } from './cut-segments.ts'
import { isRoot } from './side-by-side.ts'
import { isActiveIn, type EvaluationContext, type Whom, whomOf } from './evaluation-context.ts'

/**
 * All that one person may do: what lists, searches and counts are filtered by. Worked out once for an evaluation context, in
 * one pass over the segments; from then on an answer is two reads.
 */
export interface Answers {
  readonly index: AccessIndex
  /** By a segment's number, what is answered in it; with `headHidden` where not at its head. */
  readonly bySegment: Int16Array
}

/** The sign bit of sixteen: no action has it. */
const headHidden = -0x8000

const known = new WeakMap<EvaluationContext, Map<number, Answers>>()
/** Answers cost two bytes a segment and person: past this many the oldest are let go. */
const keptAtMost = 64

export function answersFor(evaluation: EvaluationContext, person: number): Answers {
  const kept = known.get(evaluation) ?? new Map<number, Answers>()
  known.set(evaluation, kept)
  const before = kept.get(person)
  if (before !== undefined) return before
  const [oldest] = kept.size < keptAtMost ? [] : kept.keys()
  if (oldest !== undefined) kept.delete(oldest)
  const answers = { index: evaluation.index, bySegment: answered(evaluation, person) }
  kept.set(person, answers)
  return answers
}

export function answerAt({ index, bySegment }: Answers, node: number): ActionSet {
  const segment = read(index.segmentOf, node)
  const answer = bySegment[segment] as ActionSet
  if (answer >= 0) return answer
  const isHead = read(index.segments, segment * inSegment.width + inSegment.head) === node
  return isHead ? noActions : ((answer & ~headHidden) as ActionSet)
}

/** What is being worked out for somebody. */
interface Answering {
  readonly evaluation: EvaluationContext
  readonly person: number
  readonly whom: Whom
  readonly bySegment: Int16Array
  /** For each segment the place of its sum among those that were made; `none` while it is not known. */
  readonly sumOf: Int32Array
  readonly sums: Sum[]
}

/**
 * Down the tree of segments, as they lie; the few that lie before the one above them come last. Most have nothing
 * that speaks of the person, and answer as the one above them.
 */
function answered(evaluation: EvaluationContext, person: number): Int16Array {
  const { segments, entries, freeSegments } = evaluation.index
  const bySegment = new Int16Array(freeSegments.length)
  if (!isActiveIn(evaluation, person)) return bySegment
  const sumOf = roomFor(evaluation, freeSegments.length)
  const whom = whomOf(evaluation, person)
  const marks = createMarks()
  mark(marks, whom)
  const sums: Sum[] = []
  const row: Row = { page: segments.pages[0] as Int32Array, at: 0, entries, marks }
  const answering = { evaluation, person, whom, bySegment, sumOf, sums }
  const late: number[] = []
  for (let segment = 0; segment < bySegment.length; segment += 1) {
    row.at = (segment * segmentWidth) & inPage
    if (row.at === 0) row.page = segments.pages[(segment * segmentWidth) >> shift] as Int32Array
    const up = row.page[row.at + upAt] as number
    const sum = up === end ? end : (sumOf[up] as number)
    if (sum !== end && saysNothing(row, sums[sum] as Sum)) {
      sumOf[segment] = sum
      bySegment[segment] = (bySegment[up] as number) & ~headHidden
    } else if (up !== end && sum === end) late.push(segment)
    else if (row.page[row.at + headAt] !== end) answerSegment(answering, segment, up)
  }
  for (const segment of late) answerLate(answering, segment)
  return bySegment
}

/** A segment where it lies, and what is looked for in it; the same object for one after the other. */
interface Row {
  page: Int32Array
  at: number
  readonly entries: Vector
  readonly marks: Marks
}

/** Whether nothing in a segment makes a difference to what was summed up above it. */
function saysNothing({ page, at, entries, marks }: Row, above: Sum): boolean {
  const bits = (page[at + stateAt] as number) & telling
  // Where nothing is given, a break has nothing to end.
  if (bits !== 0 && (bits !== broken || above.given !== noActions)) return false
  const next = page[at + entryAt + nextAt] as number
  return (
    !isSpokenBy(marks, page[at + entryAt] as number) && (next === end || !isSpokenFrom(next, entries, marks))
  )
}

const isSpokenBy = (marks: Marks, principal: number): boolean => marks[(principal + 1) & mask] === 1

/** The second and later entries of a segment: few have any. */
function isSpokenFrom(first: number, entries: Vector, marks: Marks): boolean {
  for (let number = first; number !== end;) {
    const rows = entries.pages[(number * entryWidth) >> shift] as Int32Array
    const entry = (number * entryWidth) & inPage
    if (isSpokenBy(marks, rows[entry] as number)) return true
    number = rows[entry + nextAt] as number
  }
  return false
}

/** Used again each time: to make it anew takes longer than all else. */
function roomFor({ room }: EvaluationContext, length: number): Int32Array {
  if (room.numbers.length < length) room.numbers = new Int32Array(length)
  return room.numbers.subarray(0, length).fill(none)
}

/** Those above first. A row that is free stands in nothing. */
function answerLate(answering: Answering, from: number): void {
  const { segments } = answering.evaluation.index
  const upOf = (segment: number) => read(segments, segment * segmentWidth + upAt)
  if (read(segments, from * segmentWidth + headAt) === none) return
  const waiting: number[] = []
  for (let segment = from; answering.sumOf[segment] === none; segment = upOf(segment)) waiting.push(segment)
  for (const segment of waiting.toReversed()) answerSegment(answering, segment, upOf(segment))
}

function answerSegment(answering: Answering, segment: number, up: number): void {
  const { evaluation, person, whom, bySegment, sumOf, sums } = answering
  const { index } = evaluation
  const bits = read(index.segments, segment * segmentWidth + stateAt)
  const sum = createSum()
  inherit(sum, up === none ? undefined : sums[sumOf[up] as number])
  sum.isGuest = whom.kin === guests
  if ((bits & state.broken) !== 0) sum.given = noActions
  addOwn(evaluation, whom, { sum, segment })
  sum.states |= statesOf(index, bits) & (state.archived | state.binned)
  bySegment[segment] = answerOf(index, sum, { segment, person })
  sumOf[segment] = sums.push(sum) - 1
}

function inherit(sum: Sum, above: Sum | undefined): void {
  if (above === undefined) return
  sum.given = above.given
  sum.cap = above.cap
  sum.capUnlessSpared = above.capUnlessSpared
  sum.states = above.states
}

// Their own copies: what is imported is looked up anew at each use.
const end = none
const { width: segmentWidth, state: stateAt, up: upAt, head: headAt, entry: entryAt } = inSegment
const { width: entryWidth, next: nextAt } = inEntry
const { width: linksWidth, nodes: nodesAt } = inLinks
const { broken } = state
const mask = markMask
const shift = pageShift
const inPage = (1 << shift) - 1
/** What of a head's state can make a difference to people; a home, where its team is archived. */
const telling = state.broken | state.draft | state.archived | state.binned | state.home

function answerOf(
  index: AccessIndex,
  sum: Sum,
  { segment, person }: { segment: number; person: number },
): number {
  const held = capped(index, sum)
  if (held === noActions) return noActions
  const node = read(index.segments, segment * inSegment.width + inSegment.head)
  const answer = afterStates(held, sum.states)
  const isHidden = answer !== noActions && hidesAsDraft(index, { person, node, segment, held })
  return isHidden ? answer | headHidden : answer
}

/** How many places somebody may do what at, by the set of actions. */
export function countsOf({ index, bySegment }: Answers): Map<ActionSet, number> {
  const { segmentLinks } = index
  // There are as many sets as bits allow, so they are counted in a list.
  const nodesBy = new Int32Array(everyAction + 1)
  for (let segment = 0; segment < bySegment.length; segment += 1) {
    const answer = bySegment[segment] as number
    if (answer === 0) continue
    const at = segment * linksWidth + nodesAt
    const nodes = (segmentLinks.pages[at >> shift] as Int32Array)[at & inPage] as number
    const actions = answer & ~headHidden
    nodesBy[actions] = (nodesBy[actions] as number) + nodes - (answer < 0 ? 1 : 0)
  }
  const counts = new Map<ActionSet, number>()
  for (const [actions, nodes] of nodesBy.entries()) if (nodes > 0) counts.set(actions as ActionSet, nodes)
  return counts
}

/** A segment of the tree that somebody sees, all of which answers alike: a cut segment, by the place of the one around it. */
export interface VisibleSegment {
  /** Its top. */
  readonly node: number
  readonly actions: ActionSet
  readonly nodes: number
  /** The place in the list of what its top stands in; `none` where that is not seen, or has no place of its own. */
  readonly within: number
}

/** Segments as whole numbers, four each in the order of their fields: there can be very many, and a worker sends them. */
export type VisibleRows = Int32Array

const seenWidth = 4

export const visibleCount = (rows: VisibleRows): number => rows.length / seenWidth

export const visibleAt = (rows: VisibleRows, place: number): VisibleSegment => ({
  node: rows[place * seenWidth] as number,
  actions: rows[place * seenWidth + 1] as ActionSet,
  nodes: rows[place * seenWidth + 2] as number,
  within: rows[place * seenWidth + 3] as number,
})

/** All that somebody sees, each segment after the one that it stands in. Costs what the segments cost. */
export function visibleIn({ index, bySegment }: Answers): VisibleRows {
  const rows: number[] = []
  const add = ({ node, actions, nodes, within }: VisibleSegment) =>
    rows.push(node, actions, nodes, within) / seenWidth - 1
  /** For each segment its place in the list, + 1; 0 where it has none, or several. */
  const placeOf = new Int32Array(bySegment.length)
  forEachSegment(index, bySegment, (segment, up) => {
    const answer = bySegment[segment] as number
    const actions = (answer & ~headHidden) as ActionSet
    if (actions === noActions) return
    const within = up === none ? none : (placeOf[up] as number) - 1
    const node = read(index.segments, segment * segmentWidth + inSegment.head)
    // The whole workspace is never told as a place, and a draft can answer otherwise than what lies in it.
    const isApart =
      up === none || (read(index.segments, segment * segmentWidth + stateAt) & state.draft) !== 0
    if (!isApart) {
      const nodes = read(index.segmentLinks, segment * inLinks.width + inLinks.nodes)
      placeOf[segment] = add({ node, actions, nodes, within }) + 1
      return
    }
    const place = answer < 0 ? none : add({ node, actions, nodes: 1, within })
    for (const inside of insideHead(index, segment)) add({ ...inside, actions, within: place })
  })
  return Int32Array.from(rows)
}

/** What lies right in a segment's head, and how many nodes of the segment go with each. */
function insideHead(index: AccessIndex, segment: number): { node: number; nodes: number }[] {
  const inside = (node: number) =>
    childrenIn(index, node).filter(child => read(index.segmentOf, child) === segment)
  const head = read(index.segments, segment * segmentWidth + inSegment.head)
  return inside(head).map(node => {
    let nodes = 0
    const waiting = [node]
    for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
      nodes += 1
      waiting.push(...inside(next))
    }
    return { node, nodes }
  })
}

/**
 * The places that somebody sees without seeing what they lie in, by number: where a look at the tree begins. The whole
 * workspace is no place, so that what lies right in it is among them. Costs what is seen.
 */
export function rootsIn(answers: Answers): Int32Array {
  const { index, bySegment } = answers
  const { segments, segmentOf } = index
  const roots: number[] = []
  const insideOf = (head: number, segment: number) =>
    childrenIn(index, head).filter(child => read(segmentOf, child) === segment)
  for (let segment = 0; segment < bySegment.length; segment += 1) {
    const answer = bySegment[segment] as number
    if (answer === noActions) continue
    const row = segment * segmentWidth
    const page = segments.pages[row >> shift] as Int32Array
    const head = page[(row & inPage) + headAt] as number
    const up = page[(row & inPage) + upAt] as number
    if (head === end) continue
    // A head that is not seen itself: the whole workspace, or one that hides as a draft.
    if (up === end || answer < 0) roots.push(...insideOf(head, segment))
    else if ((bySegment[up] as number) <= 0 || read(segments, up * segmentWidth + upAt) === end) {
      const above = read(index.tree, head * inTree.width + inTree.parent)
      if (isRoot(index, above) || answerAt(answers, above) === noActions) roots.push(head)
    }
  }
  return Int32Array.from(roots)
}
