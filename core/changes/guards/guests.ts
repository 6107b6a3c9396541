import { rowOf, rowsBy } from '../../base/collection.ts'
import { wrongGuestMembership } from '../edits/member.ts'
import type { Guard, Whole } from './guard.ts'
import type { Membership, Person } from '../../people/person.ts'
import { guestRole } from '../../people/role.ts'
import { privateFolderOf, type State } from '../../state/state.ts'
import type { Refusal } from '../refusal.ts'

/** No change leaves a guest leading a team, standing in one that does not welcome guests, or holding a role. */
export const guests: Guard = whole => {
  for (const membership of touchedMemberships(whole)) {
    const wrong = wrongGuestMembership(whole.after.state, membership)
    if (wrong !== undefined) return wrong
  }
  for (const person of touchedGuests(whole)) {
    const wrong = wrongGuest(whole.after.state, person)
    if (wrong !== undefined) return wrong
  }
  return undefined
}

/** Guests who became so, or who are given a role, in whichever way. */
const touchedGuests = ({ changes, after }: Whole): Person[] =>
  changes.flatMap(change => {
    const id =
      change.table === 'persons' ? change.id : change.table === 'holdings' ? change.after?.person : undefined
    const person = id === undefined ? undefined : rowOf(after.state.persons, id)
    return person?.kind === 'guest' ? [person] : []
  })

/** A guest holds Guest and no other role, and has no private folder. */
function wrongGuest(state: State, { id: person }: Person): Refusal | undefined {
  const isWrong = rowsBy(state.holdings, 'person', person).some(each => each.role !== guestRole)
  if (isWrong) return { code: 'guest-rule', rule: 'no role', person }
  const folder = privateFolderOf(state, person)
  return folder === undefined || folder.binned !== null
    ? undefined
    : { code: 'guest-rule', rule: 'no private folder', person }
}

function touchedMemberships({ changes, after }: Whole): Membership[] {
  return changes.flatMap(change => {
    if (change.table === 'memberships') return change.after === null ? [] : [change.after]
    if (change.table === 'teams') return rowsBy(after.state.memberships, 'team', change.id)
    return change.table === 'persons' ? rowsBy(after.state.memberships, 'person', change.id) : []
  })
}
