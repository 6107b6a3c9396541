import { none, read } from '../base/column.ts'
import { rowOf } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { idOf } from '../base/numbering.ts'
import { actionsNumbered, inEntry, inStretch, state } from '../index/layout.ts'
import { type ActionSet, bitOf, noActions } from '../levels/action.ts'
import type { Person } from '../people/person.ts'
import type { Snapshot } from '../state/state.ts'
import { isLimit, isLiveEntry, principalOf, someEntry } from '../index/walk.ts'
import { actionsIn, checkIn } from './evaluate.ts'
import type { Place } from './place.ts'
import { somePerson } from './principals.ts'
import { isActiveIn, isToldOf, nodeById, type Sight, sightOf } from './sight.ts'

export interface Reach {
  readonly person: Person
  readonly actions: ActionSet
  /** False for the invited and those whose time has not begun: answered as if it had. */
  readonly isActive: boolean
}

/** Everyone with access at a node. People not yet active are answered as if they were, and marked. */
export function who(snapshot: Snapshot, node: NodeId): Reach[] {
  const sight = sightOf(snapshot)
  const { persons } = sight.index
  const found: Reach[] = []
  forEachWithAccess(sight, nodeById(sight, node), (person, actions) => {
    const record = rowOf(snapshot.state.persons, idOf(persons, person) as PersonId) as Person
    found.push({ person: record, actions, isActive: isActiveIn(sight, person) })
  })
  return found
}

/** How many active people have access at a node: no record is looked up for it. */
export function countActive(snapshot: Snapshot, node: NodeId): number {
  const sight = sightOf(snapshot)
  let count = 0
  forEachWithAccess(sight, nodeById(sight, node), person => {
    if (isActiveIn(sight, person)) count += 1
  })
  return count
}

/** Each once, by number. Costs what those cost to whom something is given there, and a byte for everybody else. */
export function forEachWithAccess(
  sight: Sight,
  node: number,
  visit: (person: number, actions: ActionSet) => void,
): void {
  if (node === none) return
  const isSeen = new Uint8Array(sight.index.persons.length)
  someGrant(sight, read(sight.index.stretchOf, node), ({ principal }) =>
    somePerson(sight, principal, person => {
      if (isSeen[person] === 1) return false
      isSeen[person] = 1
      const actions = isToldOf(sight, person) ? actionsIn(sight, person, node) : noActions
      if (actions !== noActions) visit(person, actions)
      return false
    }),
  )
}

/** Whether an active person may share here. Only those are looked at to whom a grant gives share. */
export const hasSteward = (snapshot: Snapshot, place: Place): boolean =>
  hasStewardIn(sightOf(snapshot), nodeById(sightOf(snapshot), place.node.id))

export const hasStewardIn = (sight: Sight, node: number): boolean =>
  someGrant(
    sight,
    read(sight.index.stretchOf, node),
    ({ principal, actions }) =>
      (actions & share) !== 0 &&
      somePerson(sight, principal, person => (checkIn(sight, person, node) & share) !== 0),
  )

const share = bitOf('share')

interface Given {
  readonly principal: number
  readonly actions: ActionSet
}

/** The live grants of a stretch and those it inherits, nearest first; until `visit` answers that it has seen enough. */
function someGrant({ index, time }: Sight, from: number, visit: (given: Given) => boolean): boolean {
  const { stretches } = index
  for (let stretch = from; stretch !== none;) {
    const isFound = someEntry(index, stretch, found => {
      if (isLimit(found) || !isLiveEntry(index, found, time)) return false
      const actions = actionsNumbered(index, found.page[found.at + inEntry.actions] as number)
      return visit({ principal: principalOf(found), actions })
    })
    if (isFound) return true
    const base = stretch * inStretch.width
    if ((read(stretches, base + inStretch.state) & state.broken) !== 0) return false
    stretch = read(stretches, base + inStretch.up)
  }
  return false
}
