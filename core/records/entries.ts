import type { NodeId, PersonId } from '../base/ids.ts'
import { rowsBy, rowOf } from '../base/collection.ts'
import { type LeadingChanges, subjectIn } from '../changes/consequences.ts'
import type { BothStates } from '../changes/conduct.ts'
import { partsOf, type Principal } from '../rules/principal.ts'
import type { State } from '../state/state.ts'

/** What grants and limits have in common: each names somebody at a place. */

interface EntryChange {
  readonly before: { readonly node: NodeId; readonly principal: Principal } | null
  readonly after: { readonly node: NodeId; readonly principal: Principal } | null
}

/** What was set at a place that was deleted, or named somebody who left. */
export function isEntryConsequence(
  { before, after }: EntryChange,
  { gone, leavers, goneTeams }: LeadingChanges,
): boolean {
  const { node, principal = 'anyone' } = after ?? before ?? {}
  const { person, team } = subjectIn(principal)
  const isDeleted = after === null && gone.has(node as NodeId)
  return (
    isDeleted ||
    (person !== undefined && leavers.has(person)) ||
    (after === null && team !== undefined && goneTeams.has(team))
  )
}

export function peopleOfEntry(
  { before, after }: EntryChange,
  states: BothStates,
): readonly PersonId[] | 'everybody' {
  const principal = (before ?? after)?.principal ?? 'anyone'
  const both = [states.before, states.after].map(state => peopleNamed(state, principal))
  return both.includes('everybody') ? 'everybody' : (both as PersonId[][]).flat()
}

function peopleNamed(state: State, principal: Principal): PersonId[] | 'everybody' {
  const parts = partsOf(principal)
  if (parts.kind === 'person') return [parts.person]
  if (parts.kind !== 'team' && parts.kind !== 'leads') return 'everybody'
  return rowOf(state.teams, parts.team)?.joining === 'everyone'
    ? 'everybody'
    : rowsBy(state.memberships, 'team', parts.team).map(each => each.person)
}

export const placesOfEntry = (_: State, { before, after }: EntryChange): NodeId[] =>
  [before, after].flatMap(row => (row === null ? [] : [row.node]))
