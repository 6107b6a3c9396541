import { none, offsetIn, pageAt, read } from '../base/vector.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import {
  type AccessIndex,
  actionsNumbered,
  anyone,
  group,
  guests,
  inEntry,
  inGroup,
  inSegment,
  inTree,
  state,
} from '../index/layout.ts'
import { type FoundEntry, isLimit, isLiveEntry, isSparing, principalOf, someEntry } from '../index/walk.ts'
import {
  actions,
  type ActionSet,
  bitOf,
  everyAction,
  has,
  intersect,
  noActions,
  union,
} from '../levels/action.ts'
import type { Snapshot } from '../state/state.ts'
import type { Place } from './place.ts'
import {
  createWhom,
  isActiveIn,
  isWhom,
  nodeById,
  personById,
  type EvaluationContext,
  evaluationOf,
  type Whom,
  whomOf,
} from './evaluation-context.ts'
import type { Subject } from './subject.ts'

/**
 * What a person may do at a place. Grants add up. Limits cap. Breaking inheritance stops grants from
 * above; limits always flow down.
 *
 * Costs what the segments on the way up cost: not what lies between them, and nothing that lies elsewhere.
 */

/** The answer to "may P do this at N": all the actions of a person at a node; none if either is unknown. */
export function check(snapshot: Snapshot, person: PersonId, node: NodeId): ActionSet {
  const evaluation = evaluationOf(snapshot)
  return checkIn(evaluation, personById(evaluation, person), nodeById(evaluation, node))
}

/** The same in numbers. */
export const checkIn = (evaluation: EvaluationContext, person: number, node: number): ActionSet =>
  person !== none && node !== none && isActiveIn(evaluation, person)
    ? actionsIn(evaluation, person, node)
    : noActions

/** Whether a person sees anything of what lies right in a node: no record is made for it. */
export function seesWithin(snapshot: Snapshot, personId: PersonId, nodeId: NodeId): boolean {
  const evaluation = evaluationOf(snapshot)
  const person = personById(evaluation, personId)
  const node = nodeById(evaluation, nodeId)
  if (node === none) return false
  const { tree } = evaluation.index
  let child = read(tree, node * inTree.width + inTree.first)
  while (child !== none && !has(checkIn(evaluation, person, child), 'see'))
    child = read(tree, child * inTree.width + inTree.next)
  return child !== none
}

export const actionsAt = (snapshot: Snapshot, subject: Subject, place: Place): ActionSet =>
  check(snapshot, subject.person.id, place.node.id)

/** The same for somebody who is only invited, or whose time has not begun. */
export function actionsAsIfActive(snapshot: Snapshot, subject: Subject, place: Place): ActionSet {
  const evaluation = evaluationOf(snapshot)
  const person = personById(evaluation, subject.person.id)
  const node = nodeById(evaluation, place.node.id)
  return person === none || node === none ? noActions : actionsIn(evaluation, person, node)
}

/** What a person holds before an archive or the bin takes its part: read for bringing back. */
export function heldBeforeStates(snapshot: Snapshot, personId: PersonId, nodeId: NodeId): ActionSet {
  const evaluation = evaluationOf(snapshot)
  const person = personById(evaluation, personId)
  const node = nodeById(evaluation, nodeId)
  return person === none || node === none || !isActiveIn(evaluation, person)
    ? noActions
    : heldIn(evaluation, person, node)
}

/** The same for sharing, breaking and moving in an archive; nothing in the bin. */
export function heldInArchive(snapshot: Snapshot, person: PersonId, node: NodeId): ActionSet {
  const held = heldBeforeStates(snapshot, person, node)
  return held === noActions || (sum.states & state.binned) !== 0 ? noActions : held
}

/** What is answered at a node, whether or not the person is active. */
export function actionsIn(evaluation: EvaluationContext, person: number, node: number): ActionSet {
  const held = heldIn(evaluation, person, node)
  return held === noActions || sum.states === 0 ? held : afterStates(held, sum.states)
}

/** Adds up what is held there, and leaves the states in `sum`. A draft hides itself also where it is archived. */
function heldIn(evaluation: EvaluationContext, person: number, node: number): ActionSet {
  const { index } = evaluation
  const segment = read(index.segmentOf, node)
  addUp(evaluation, person, segment)
  const held = capped(index, sum)
  const isHidden = (sum.states & draft) !== 0 && hidesAsDraft(index, { person, node, segment, held })
  return isHidden ? noActions : held
}

/** What adds up on the way up, and what caps it. */
export interface Sum {
  given: ActionSet
  cap: ActionSet
  /** Does not cap members who are given share. */
  capUnlessSpared: ActionSet
  /** The states met on the way up, added. */
  states: number
  isGuest: boolean
}

export const createSum = (): Sum => ({
  given: noActions,
  cap: everyAction,
  capUnlessSpared: everyAction,
  states: 0,
  isGuest: false,
})

/** One each for all checks: none waits while another one adds up. */
const sum = createSum()
const whom = createWhom()

// Their own copies: what is imported is looked up anew at each use, and a check has no time for that.
const end = none
const all = anyone
const { width: segmentWidth, up: upAt, state: stateAt, entry: entryAt } = inSegment
const { width: entryWidth, next: nextAt } = inEntry
const { draft } = state
const share = bitOf('share')

/**
 * Adds up what a person is given on the way up to the first break, what limits leave of it, and the states met.
 * A check of many spends its time here, waiting for memory: nothing is made, nothing is called but where an entry
 * speaks of the person.
 */
function addUp(evaluation: EvaluationContext, person: number, from: number): void {
  const { segments, entries } = evaluation.index
  const { self, kin, list, first, behind } = whomOf(evaluation, person, whom)
  clear(sum, kin === guests)
  for (let segment = from; segment !== end;) {
    const page = pageAt(segments, segment * segmentWidth)
    const at = offsetIn(segment * segmentWidth)
    let rows = page
    let entry = at + entryAt
    for (let number = end; ;) {
      const principal = rows[entry] as number
      let isSpoken = principal === self || principal === kin || principal === all
      if ((principal & 3) !== 0)
        for (let each = first; each < behind; each += 1) isSpoken ||= list[each] === principal
      if (isSpoken) addEntry(evaluation, sum, { page: rows, at: entry, segment, number })
      number = rows[entry + nextAt] as number
      if (number === end) break
      rows = pageAt(entries, number * entryWidth)
      entry = offsetIn(number * entryWidth)
    }
    const states = page[at + stateAt] as number
    if (states !== 0) sum.states |= statesOf(evaluation.index, states)
    segment = page[at + upAt] as number
  }
}

/** Adds what the entries of a segment give to somebody and take. */
export function addOwn(
  evaluation: EvaluationContext,
  whom: Whom,
  { sum, segment }: { readonly sum: Sum; readonly segment: number },
): void {
  someEntry(evaluation.index, segment, found => {
    if (isWhom(whom, principalOf(found))) addEntry(evaluation, sum, found)
    return false
  })
}

/** Whether the same is given and capped; states are not looked at. */
export const isSameSum = (a: Sum, b: Sum): boolean =>
  a.given === b.given && a.cap === b.cap && a.capUnlessSpared === b.capUnlessSpared && a.isGuest === b.isGuest

export function clear(sum: Sum, isGuest: boolean): void {
  sum.given = noActions
  sum.cap = everyAction
  sum.capUnlessSpared = everyAction
  sum.states = 0
  sum.isGuest = isGuest
}

/** Adds what an entry gives or takes, if it is live. A grant beyond a break does not count; a limit does. */
export function addEntry(evaluation: EvaluationContext, sum: Sum, found: FoundEntry): void {
  if (!isLiveEntry(evaluation.index, found, evaluation.time)) return
  const set = actionsNumbered(evaluation.index, found.page[found.at + inEntry.actions] as number)
  if (!isLimit(found)) {
    if ((sum.states & state.broken) === 0) sum.given = union(sum.given, set)
  } else if (isSparing(found)) sum.capUnlessSpared = intersect(sum.capUnlessSpared, set)
  else sum.cap = intersect(sum.cap, set)
}

/** A limit on a group spares members who are given share; the workspace's ceiling holds guests. */
export function capped(
  { guestCeiling }: AccessIndex,
  { given, cap, capUnlessSpared, isGuest }: Sum,
): ActionSet {
  const held = intersect(given, cap)
  if (isGuest) return intersect(intersect(held, capUnlessSpared), guestCeiling)
  return (given & share) !== 0 ? held : intersect(held, capUnlessSpared)
}

/** An archive caps; from the bin nothing is given. */
export function afterStates(held: ActionSet, bits: number): ActionSet {
  if ((bits & state.binned) !== 0) return noActions
  return (bits & state.archived) === 0 ? held : intersect(held, inArchive)
}

export const inArchive = actions('see', 'copy', 'share', 'seal')

interface Answered {
  readonly person: number
  readonly node: number
  readonly segment: number
  readonly held: ActionSet
}

/** A draft hides itself, only itself, from those who could neither change nor share it nor made it. */
export function hidesAsDraft({ segments }: AccessIndex, { person, node, segment, held }: Answered): boolean {
  const base = segment * inSegment.width
  const isDraft = (read(segments, base + inSegment.state) & state.draft) !== 0
  if (!isDraft || read(segments, base + inSegment.head) !== node) return false
  if (has(held, 'change') || has(held, 'share')) return false
  return !(read(segments, base + inSegment.maker) === person && has(held, 'add'))
}

/** With the bit of an archive for the home of a team that is archived. */
export function statesOf({ groups }: AccessIndex, bits: number): number {
  const team = (bits >> state.teamShift) - 1
  const isArchived = team >= 0 && (read(groups, team * inGroup.width + inGroup.state) & group.archived) !== 0
  return isArchived ? bits | state.archived : bits
}
