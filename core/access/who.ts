import { none, read } from '../base/vector.ts'
import { rowOf } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { idOf } from '../base/numbering.ts'
import { actionsNumbered, inEntry, inSegment, state } from '../index/layout.ts'
import { type ActionSet, bitOf, noActions } from '../levels/action.ts'
import type { Person } from '../people/person.ts'
import type { Snapshot } from '../state/state.ts'
import { isLimit, isLiveEntry, principalOf, someEntry } from '../index/walk.ts'
import { actionsIn, checkIn } from './evaluate.ts'
import type { Place } from './place.ts'
import { somePerson } from './principals.ts'
import { isActiveIn, isToldOf, nodeById, type EvaluationContext, evaluationOf } from './evaluation-context.ts'

export interface PersonAccess {
  readonly person: Person
  readonly actions: ActionSet
  /** False for the invited and those whose time has not begun: answered as if it had. */
  readonly isActive: boolean
}

/** Everyone with access at a node. People not yet active are answered as if they were, and marked. */
export function who(snapshot: Snapshot, node: NodeId): PersonAccess[] {
  const evaluation = evaluationOf(snapshot)
  const { persons } = evaluation.index
  const found: PersonAccess[] = []
  forEachWithAccess(evaluation, nodeById(evaluation, node), (person, actions) => {
    const record = rowOf(snapshot.state.persons, idOf(persons, person) as PersonId) as Person
    found.push({ person: record, actions, isActive: isActiveIn(evaluation, person) })
  })
  return found
}

/** How many active people have access at a node: no record is looked up for it. */
export function countActive(snapshot: Snapshot, node: NodeId): number {
  const evaluation = evaluationOf(snapshot)
  let count = 0
  forEachWithAccess(evaluation, nodeById(evaluation, node), person => {
    if (isActiveIn(evaluation, person)) count += 1
  })
  return count
}

/** Each once, by number. Costs what those cost to whom something is given there, and a byte for everybody else. */
export function forEachWithAccess(
  evaluation: EvaluationContext,
  node: number,
  visit: (person: number, actions: ActionSet) => void,
): void {
  if (node === none) return
  const isVisible = new Uint8Array(evaluation.index.persons.length)
  someGrant(evaluation, read(evaluation.index.segmentOf, node), ({ principal }) =>
    somePerson(evaluation, principal, person => {
      if (isVisible[person] === 1) return false
      isVisible[person] = 1
      const actions = isToldOf(evaluation, person) ? actionsIn(evaluation, person, node) : noActions
      if (actions !== noActions) visit(person, actions)
      return false
    }),
  )
}

/** Whether an active person may share here. Only those are looked at to whom a grant gives share. */
export const hasSteward = (snapshot: Snapshot, place: Place): boolean =>
  hasStewardIn(evaluationOf(snapshot), nodeById(evaluationOf(snapshot), place.node.id))

export const hasStewardIn = (evaluation: EvaluationContext, node: number): boolean =>
  someGrant(
    evaluation,
    read(evaluation.index.segmentOf, node),
    ({ principal, actions }) =>
      (actions & share) !== 0 &&
      somePerson(evaluation, principal, person => (checkIn(evaluation, person, node) & share) !== 0),
  )

const share = bitOf('share')

interface Given {
  readonly principal: number
  readonly actions: ActionSet
}

/** The live grants of a segment and those it inherits, nearest first; until `visit` answers that it has seen enough. */
function someGrant(
  { index, time }: EvaluationContext,
  from: number,
  visit: (given: Given) => boolean,
): boolean {
  const { segments } = index
  for (let segment = from; segment !== none;) {
    const isFound = someEntry(index, segment, found => {
      if (isLimit(found) || !isLiveEntry(index, found, time)) return false
      const actions = actionsNumbered(index, found.page[found.at + inEntry.actions] as number)
      return visit({ principal: principalOf(found), actions })
    })
    if (isFound) return true
    const base = segment * inSegment.width
    if ((read(segments, base + inSegment.state) & state.broken) !== 0) return false
    segment = read(segments, base + inSegment.up)
  }
  return false
}
