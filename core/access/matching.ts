import { type ActionSet, has, noActions, union } from '../levels/action.ts'
import type { Limit } from '../rules/access-entry.ts'
import type { EffectiveGrant } from './place.ts'
import type { Subject } from './subject.ts'

/** Which entries speak of a person, as it is told to people: the sums themselves are worked out in evaluate.ts. */

export const givenTo = (subject: Subject, grants: readonly EffectiveGrant[]): ActionSet =>
  grants
    .filter(each => subject.principals.has(each.grant.principal))
    .reduce((set, each) => union(set, each.actions), noActions)

/** Whether a limit counts for this person: a limit on a group spares members who are given share. */
export function holdsBack(limit: Limit, subject: Subject, given: ActionSet): boolean {
  if (!subject.principals.has(limit.principal)) return false
  const isGroup = !limit.principal.startsWith('person:')
  return !(isGroup && limit.sparesStewards && !subject.isGuest && has(given, 'share'))
}
