import type { NodeId, PersonId } from '../base/ids.ts'
import { actions, type ActionSet, has, intersect, noActions, union, without } from '../levels/action.ts'
import type { Limit } from '../rules/entry.ts'
import { type Moment, type State, workspaceOf } from '../state/state.ts'
import { type GivenHere, type Place, placeOf } from './place.ts'
import { type Subject, subjectOf } from './subject.ts'

/**
 * What a person may do at a place. Grants add up. Limits cap. Breaking inheritance stops grants from
 * above; limits always flow down.
 */

/** The answer to "may P do this at N": all the actions of a person at a node; none if either is unknown. */
export function check(moment: Moment, person: PersonId, node: NodeId): ActionSet {
  const subject = subjectOf(moment, person)
  const place = placeOf(moment, node)
  return subject === undefined || place === undefined ? noActions : actionsAt(moment, subject, place)
}

export const actionsAt = (moment: Moment, subject: Subject, place: Place): ActionSet =>
  subject.isActive ? actionsAsIfActive(moment, subject, place) : noActions

/** The same for somebody who is only invited, or whose time has not begun. */
export function actionsAsIfActive(moment: Moment, subject: Subject, place: Place): ActionSet {
  const held = heldAsIfActive(moment, subject, place)
  if (place.binnedAt !== undefined || hidesAsDraft(subject, place, held)) return noActions
  return place.archivedAt === undefined ? held : intersect(held, inArchive)
}

/** What a person holds before an archive or the bin takes its part: read for sharing in them and bringing back. */
export const heldBeforeStates = (moment: Moment, subject: Subject, place: Place): ActionSet =>
  subject.isActive ? heldAsIfActive(moment, subject, place) : noActions

function heldAsIfActive(moment: Moment, subject: Subject, place: Place): ActionSet {
  const given = givenTo(subject, place.grants)
  const limited = place.limits
    .filter(limit => holdsBack(limit, subject, given))
    .reduce((set, limit) => intersect(set, limit.allows), given)
  return subject.isGuest ? intersect(limited, guestCeiling(moment.state)) : limited
}

export const inArchive = actions('see', 'copy', 'share', 'seal')

export const givenTo = (subject: Subject, grants: readonly GivenHere[]): ActionSet =>
  grants
    .filter(each => subject.principals.has(each.grant.principal))
    .reduce((set, each) => union(set, each.actions), noActions)

/** Whether a limit counts for this person: a limit on a group spares members who are given share. */
export function holdsBack(limit: Limit, subject: Subject, given: ActionSet): boolean {
  if (!subject.principals.has(limit.principal)) return false
  const isGroup = !limit.principal.startsWith('person:')
  return !(isGroup && limit.sparesStewards && !subject.isGuest && has(given, 'share'))
}

/** The workspace's ceiling; share, seal and publish are never a guest's. */
export const guestCeiling = (state: State): ActionSet => without(workspaceOf(state).guestCeiling, 'share')

/** A draft hides itself, only itself, from those who could neither change nor share it nor made it. */
export function hidesAsDraft(subject: Subject, place: Place, held: ActionSet): boolean {
  if (!place.node.draft || has(held, 'change') || has(held, 'share')) return false
  return !(place.node.maker === subject.person.id && has(held, 'add'))
}
