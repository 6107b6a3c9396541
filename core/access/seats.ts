import { allRows, rowOf, rowsBy } from '../base/collection.ts'
import { isOver } from '../base/instant.ts'
import type { Person } from '../people/person.ts'
import { type Snapshot, workspaceOf } from '../state/state.ts'

/** Whether somebody takes a seat: members do, from the invitation on, unless every role they hold is exempt. */
export function takesSeat({ state, at }: Snapshot, person: Person): boolean {
  if (person.kind === 'guest' || person.status === 'removed' || isOver(person, at)) return false
  if (person.status === 'suspended' && !workspaceOf(state).suspendedHoldSeats) return false
  const roles = rowsBy(state.holdings, 'person', person.id).map(each => rowOf(state.roles, each.role))
  return roles.length === 0 || roles.some(role => role?.seatExempt !== true)
}

export const seatsTaken = (snapshot: Snapshot): number =>
  allRows(snapshot.state.persons).filter(person => takesSeat(snapshot, person)).length
