import { type Column, none, pageShift, read } from '../base/column.ts'
import { type AccessIndex, guests, inEntry, inLinks, inStretch, inTree, state } from '../index/layout.ts'
import { forEachStretch } from '../index/walk.ts'
import { type ActionSet, everyAction, noActions } from '../levels/action.ts'
import { addOwn, afterStates, capped, createSum, hidesAsDraft, statesOf, type Sum } from './evaluate.ts'
import { createMarks, mark, type Marks, markMask } from './marks.ts'
import { childrenIn } from './regions.ts'
import { isRoot } from './side-by-side.ts'
import { isActiveIn, type Sight, type Whom, whomOf } from './sight.ts'

/**
 * All that one person may do: what lists, searches and counts are filtered by. Worked out once for a sight, in
 * one pass over the stretches; from then on an answer is two reads.
 */
export interface Answers {
  readonly index: AccessIndex
  /** By a stretch's number, what is answered in it; with `headHidden` where not at its head. */
  readonly byStretch: Int16Array
}

/** The sign bit of sixteen: no action has it. */
const headHidden = -0x8000

const known = new WeakMap<Sight, Map<number, Answers>>()
/** Answers cost two bytes a stretch and person: past this many the oldest are let go. */
const keptAtMost = 64

export function answersFor(sight: Sight, person: number): Answers {
  const kept = known.get(sight) ?? new Map<number, Answers>()
  known.set(sight, kept)
  const before = kept.get(person)
  if (before !== undefined) return before
  const [oldest] = kept.size < keptAtMost ? [] : kept.keys()
  if (oldest !== undefined) kept.delete(oldest)
  const answers = { index: sight.index, byStretch: answered(sight, person) }
  kept.set(person, answers)
  return answers
}

export function answerAt({ index, byStretch }: Answers, node: number): ActionSet {
  const stretch = read(index.stretchOf, node)
  const answer = byStretch[stretch] as ActionSet
  if (answer >= 0) return answer
  const isHead = read(index.stretches, stretch * inStretch.width + inStretch.head) === node
  return isHead ? noActions : ((answer & ~headHidden) as ActionSet)
}

/** What is being worked out for somebody. */
interface Answering {
  readonly sight: Sight
  readonly person: number
  readonly whom: Whom
  readonly byStretch: Int16Array
  /** For each stretch the place of its sum among those that were made; `none` while it is not known. */
  readonly sumOf: Int32Array
  readonly sums: Sum[]
}

/**
 * Down the tree of stretches, as they lie; the few that lie before the one above them come last. Most have nothing
 * that speaks of the person, and answer as the one above them.
 */
function answered(sight: Sight, person: number): Int16Array {
  const { stretches, entries, freeStretches } = sight.index
  const byStretch = new Int16Array(freeStretches.length)
  if (!isActiveIn(sight, person)) return byStretch
  const sumOf = scratchOf(freeStretches.length)
  const whom = whomOf(sight, person)
  const marks = createMarks()
  mark(marks, whom)
  const sums: Sum[] = []
  const row: Row = { page: scratch, at: 0, entries, marks }
  const answering = { sight, person, whom, byStretch, sumOf, sums }
  const late: number[] = []
  for (let stretch = 0; stretch < byStretch.length; stretch += 1) {
    row.at = (stretch * stretchWidth) & inPage
    if (row.at === 0) row.page = stretches.pages[(stretch * stretchWidth) >> shift] as Int32Array
    const up = row.page[row.at + upAt] as number
    const sum = up === end ? end : (sumOf[up] as number)
    if (sum !== end && saysNothing(row, sums[sum] as Sum)) {
      sumOf[stretch] = sum
      byStretch[stretch] = (byStretch[up] as number) & ~headHidden
    } else if (up !== end && sum === end) late.push(stretch)
    else if (row.page[row.at + headAt] !== end) answerStretch(answering, stretch, up)
  }
  for (const stretch of late) answerLate(answering, stretch)
  return byStretch
}

/** A stretch where it lies, and what is looked for in it; the same object for one after the other. */
interface Row {
  page: Int32Array
  at: number
  readonly entries: Column
  readonly marks: Marks
}

/** Whether nothing in a stretch makes a difference to what was summed up above it. */
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

/** The second and later entries of a stretch: few have any. */
function isSpokenFrom(first: number, entries: Column, marks: Marks): boolean {
  for (let number = first; number !== end;) {
    const rows = entries.pages[(number * entryWidth) >> shift] as Int32Array
    const entry = (number * entryWidth) & inPage
    if (isSpokenBy(marks, rows[entry] as number)) return true
    number = rows[entry + nextAt] as number
  }
  return false
}

/** Used again each time, since none waits while another is worked out: to make it anew takes longer than all else. */
let scratch: Int32Array = new Int32Array()

function scratchOf(length: number): Int32Array {
  if (scratch.length < length) scratch = new Int32Array(length)
  return scratch.subarray(0, length).fill(none)
}

/** Those above first. A row that is free stands in nothing. */
function answerLate(answering: Answering, from: number): void {
  const { stretches } = answering.sight.index
  const upOf = (stretch: number) => read(stretches, stretch * stretchWidth + upAt)
  if (read(stretches, from * stretchWidth + headAt) === none) return
  const waiting: number[] = []
  for (let stretch = from; answering.sumOf[stretch] === none; stretch = upOf(stretch)) waiting.push(stretch)
  for (const stretch of waiting.toReversed()) answerStretch(answering, stretch, upOf(stretch))
}

function answerStretch(answering: Answering, stretch: number, up: number): void {
  const { sight, person, whom, byStretch, sumOf, sums } = answering
  const { index } = sight
  const bits = read(index.stretches, stretch * stretchWidth + stateAt)
  const sum = createSum()
  inherit(sum, up === none ? undefined : sums[sumOf[up] as number])
  sum.isGuest = whom.kin === guests
  if ((bits & state.broken) !== 0) sum.given = noActions
  addOwn(sight, whom, { sum, stretch })
  sum.states |= statesOf(index, bits) & (state.archived | state.binned)
  byStretch[stretch] = answerOf(index, sum, { stretch, person })
  sumOf[stretch] = sums.push(sum) - 1
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
const { width: stretchWidth, state: stateAt, up: upAt, head: headAt, entry: entryAt } = inStretch
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
  { stretch, person }: { stretch: number; person: number },
): number {
  const held = capped(index, sum)
  if (held === noActions) return noActions
  const node = read(index.stretches, stretch * inStretch.width + inStretch.head)
  const answer = afterStates(held, sum.states)
  const isHidden = answer !== noActions && hidesAsDraft(index, { person, node, stretch, held })
  return isHidden ? answer | headHidden : answer
}

/** How many places somebody may do what at, by the set of actions. */
export function countsOf({ index, byStretch }: Answers): Map<ActionSet, number> {
  const { stretchLinks } = index
  // There are as many sets as bits allow, so they are counted in a list.
  const nodesBy = new Int32Array(everyAction + 1)
  for (let stretch = 0; stretch < byStretch.length; stretch += 1) {
    const answer = byStretch[stretch] as number
    if (answer === 0) continue
    const at = stretch * linksWidth + nodesAt
    const nodes = (stretchLinks.pages[at >> shift] as Int32Array)[at & inPage] as number
    const actions = answer & ~headHidden
    nodesBy[actions] = (nodesBy[actions] as number) + nodes - (answer < 0 ? 1 : 0)
  }
  const counts = new Map<ActionSet, number>()
  for (const [actions, nodes] of nodesBy.entries()) if (nodes > 0) counts.set(actions as ActionSet, nodes)
  return counts
}

/** A piece of the tree that somebody sees, all of which answers alike: a region, by the place of the one around it. */
export interface Seen {
  /** Its top. */
  readonly node: number
  readonly actions: ActionSet
  readonly nodes: number
  /** The place in the list of what its top stands in; `none` where that is not seen, or has no place of its own. */
  readonly within: number
}

/** Pieces as whole numbers, four each in the order of their fields: there can be very many, and a worker sends them. */
export type SeenRows = Int32Array

const seenWidth = 4

export const seenCount = (rows: SeenRows): number => rows.length / seenWidth

export const seenAt = (rows: SeenRows, place: number): Seen => ({
  node: rows[place * seenWidth] as number,
  actions: rows[place * seenWidth + 1] as ActionSet,
  nodes: rows[place * seenWidth + 2] as number,
  within: rows[place * seenWidth + 3] as number,
})

/** All that somebody sees, each piece after the one that it stands in. Costs what the stretches cost. */
export function seenIn({ index, byStretch }: Answers): SeenRows {
  const rows: number[] = []
  const add = ({ node, actions, nodes, within }: Seen) =>
    rows.push(node, actions, nodes, within) / seenWidth - 1
  /** For each stretch its place in the list, + 1; 0 where it has none, or several. */
  const placeOf = new Int32Array(byStretch.length)
  forEachStretch(index, byStretch, (stretch, up) => {
    const answer = byStretch[stretch] as number
    const actions = (answer & ~headHidden) as ActionSet
    if (actions === noActions) return
    const within = up === none ? none : (placeOf[up] as number) - 1
    const node = read(index.stretches, stretch * stretchWidth + inStretch.head)
    // The whole workspace is never told as a place, and a draft can answer otherwise than what lies in it.
    const isApart =
      up === none || (read(index.stretches, stretch * stretchWidth + stateAt) & state.draft) !== 0
    if (!isApart) {
      const nodes = read(index.stretchLinks, stretch * inLinks.width + inLinks.nodes)
      placeOf[stretch] = add({ node, actions, nodes, within }) + 1
      return
    }
    const place = answer < 0 ? none : add({ node, actions, nodes: 1, within })
    for (const inside of insideHead(index, stretch)) add({ ...inside, actions, within: place })
  })
  return Int32Array.from(rows)
}

/** What lies right in a stretch's head, and how many nodes of the stretch go with each. */
function insideHead(index: AccessIndex, stretch: number): { node: number; nodes: number }[] {
  const inside = (node: number) =>
    childrenIn(index, node).filter(child => read(index.stretchOf, child) === stretch)
  const head = read(index.stretches, stretch * stretchWidth + inStretch.head)
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
export function topsIn(answers: Answers): Int32Array {
  const { index, byStretch } = answers
  const { stretches, stretchOf } = index
  const tops: number[] = []
  const insideOf = (head: number, stretch: number) =>
    childrenIn(index, head).filter(child => read(stretchOf, child) === stretch)
  for (let stretch = 0; stretch < byStretch.length; stretch += 1) {
    const answer = byStretch[stretch] as number
    if (answer === noActions) continue
    const row = stretch * stretchWidth
    const page = stretches.pages[row >> shift] as Int32Array
    const head = page[(row & inPage) + headAt] as number
    const up = page[(row & inPage) + upAt] as number
    if (head === end) continue
    // A head that is not seen itself: the whole workspace, or one that hides as a draft.
    if (up === end || answer < 0) tops.push(...insideOf(head, stretch))
    else if ((byStretch[up] as number) <= 0 || read(stretches, up * stretchWidth + upAt) === end) {
      const above = read(index.tree, head * inTree.width + inTree.parent)
      if (isRoot(index, above) || answerAt(answers, above) === noActions) tops.push(head)
    }
  }
  return Int32Array.from(tops)
}
