import type { NodeId } from '../base/ids.ts'
import { type ActionSet, has, noActions } from '../levels/action.ts'
import type { Person } from '../people/person.ts'
import { partsOf } from '../rules/principal.ts'
import { type Moment, subtreeOf } from '../state/state.ts'
import { actionsAsIfActive, actionsAt } from './evaluate.ts'
import { type Place, placeOf } from './place.ts'
import { isComing, peopleIn, peopleOf, type Subject, subjectOf } from './subject.ts'
import { rowOf } from '../base/collection.ts'

export interface Reach {
  readonly person: Person
  readonly actions: ActionSet
  /** False for the invited and those whose time has not begun: answered as if it had. */
  readonly isActive: boolean
}

/** Everyone with access at a node. People not yet active are answered as if they were, and marked. */
export function who(moment: Moment, node: NodeId): Reach[] {
  const place = placeOf(moment, node)
  if (place === undefined) return []
  return [...peopleOf(moment)].flatMap(person => {
    const subject = subjectOf(moment, person.id)
    if (subject === undefined || !(subject.isActive || isComing(moment, person))) return []
    const actions = actionsAsIfActive(moment, subject, place)
    return actions === noActions ? [] : [{ person, actions, isActive: subject.isActive }]
  })
}

/** Every node that a person sees below `top`, parents before children, with what it may do there. */
export function* what(
  moment: Moment,
  subject: Subject,
  top: NodeId,
): Generator<{ readonly place: Place; readonly actions: ActionSet }> {
  for (const node of subtreeOf(moment.state, top)) {
    const place = placeOf(moment, node.id)
    const actions = place === undefined ? noActions : actionsAt(moment, subject, place)
    if (place !== undefined && actions !== noActions) yield { place, actions }
  }
}

/** Whether an active person may share here. Only those are looked at to whom a grant gives share. */
export function hasSteward(moment: Moment, place: Place): boolean {
  return place.grants
    .filter(each => has(each.actions, 'share'))
    .some(({ grant }) =>
      peopleMatching(moment, grant.principal).some(person => {
        const subject = subjectOf(moment, person.id)
        return subject !== undefined && has(actionsAt(moment, subject, place), 'share')
      }),
    )
}

function peopleMatching(moment: Moment, principal: Parameters<typeof partsOf>[0]): Person[] {
  const parts = partsOf(principal)
  switch (parts.kind) {
    case 'person': {
      const person = rowOf(moment.state.persons, parts.person)
      return person === undefined ? [] : [person]
    }
    case 'team':
    case 'leads': {
      const team = rowOf(moment.state.teams, parts.team)
      return team === undefined ? [] : peopleIn(moment, team).map(each => each.person)
    }
    case 'everyone':
    case 'guests':
    case 'anyone':
      return [...peopleOf(moment)]
  }
}
