import { none, read } from '../base/column.ts'
import { rowOf } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { idOf } from '../base/numbering.ts'
import { actionsNumbered, inEntry, inStretch, state } from '../index/layout.ts'
import { type ActionSet, bitOf, noActions } from '../levels/action.ts'
import type { Person } from '../people/person.ts'
import type { Moment } from '../state/state.ts'
import { isLimit, isLiveEntry, principalOf, someEntry } from '../index/walk.ts'
import { actionsIn, checkIn } from './evaluate.ts'
import type { Place } from './place.ts'
import { somePerson } from './principals.ts'
import { inProfile, isToldOf, nodeById, type Sight, sightOf, standing } from './sight.ts'

export interface Reach {
  readonly person: Person
  readonly actions: ActionSet
  /** False for the invited and those whose time has not begun: answered as if it had. */
  readonly isActive: boolean
}

/** Everyone with access at a node. People not yet active are answered as if they were, and marked. */
export function who(moment: Moment, node: NodeId): Reach[] {
  const sight = sightOf(moment)
  const number = nodeById(sight, node)
  if (number === none) return []
  const { persons } = sight.index
  return whoIn(sight, number).map(person => ({
    person: rowOf(moment.state.persons, idOf(persons, person) as PersonId) as Person,
    actions: actionsIn(sight, person, number),
    isActive: (standing(sight, person) & inProfile.active) !== 0,
  }))
}

/** The numbers of everyone with access at a node. Costs what those cost to whom something is given there. */
export function whoIn(sight: Sight, node: number): number[] {
  const seen = new Set<number>()
  const found: number[] = []
  someGrant(sight, read(sight.index.stretchOf, node), ({ principal }) =>
    somePerson(sight, principal, person => {
      if (!seen.has(person)) {
        seen.add(person)
        if (isToldOf(sight, person) && actionsIn(sight, person, node) !== noActions) found.push(person)
      }
      return false
    }),
  )
  return found
}

/** Whether an active person may share here. Only those are looked at to whom a grant gives share. */
export const hasSteward = (moment: Moment, place: Place): boolean =>
  hasStewardIn(sightOf(moment), nodeById(sightOf(moment), place.node.id))

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
