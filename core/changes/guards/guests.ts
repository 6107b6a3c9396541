import { rowsBy } from '../../base/collection.ts'
import { wrongGuestMembership } from '../edits/member.ts'
import type { Guard, Whole } from './guard.ts'
import type { Membership } from '../../people/person.ts'

/** No change leaves a guest leading a team, or standing in one that does not welcome guests. */
export const guests: Guard = whole => {
  for (const membership of touchedMemberships(whole)) {
    const wrong = wrongGuestMembership(whole.after.state, membership)
    if (wrong !== undefined) return wrong
  }
  return undefined
}

function touchedMemberships({ changes, after }: Whole): Membership[] {
  return changes.flatMap(change => {
    if (change.table === 'memberships') return change.after === null ? [] : [change.after]
    if (change.table === 'teams') return rowsBy(after.state.memberships, 'team', change.id)
    return change.table === 'persons' ? rowsBy(after.state.memberships, 'person', change.id) : []
  })
}
