import type { NodeId, PersonId, TeamId } from '../base/ids.ts'
import type { RecordChange } from '../state/state.ts'
import { goesAlong, leadingIn } from './along.ts'
import { conductOf, type Kinded } from './conduct.ts'

/** What kind of thing was done: what a history is looked through by. */
export const acts = [
  'sharing',
  'limits',
  'inheritance',
  'places',
  'teams',
  'people',
  'roles',
  'looking',
  'workspace',
] as const
export type Act = (typeof acts)[number]

/** One thing that a change set did, and whom and what it is about: who may read it hangs on these. */
export interface Fact {
  readonly act: Act
  readonly change: RecordChange
  readonly place: NodeId | null
  readonly person: PersonId | null
  readonly team: TeamId | null
  /** The place is named by its address, whether or not there is one. */
  readonly byAddress: boolean
}

/**
 * What a change set did, one fact a record. Records that only go along with another are left out: the
 * copies of a break, what comes with an invitation or a team, a member's private folder, what hung on
 * somebody who left, what was in a place that was deleted. Costs what the changes cost.
 */
export function factsOf(kinds: Kinded, changes: readonly RecordChange[]): Fact[] {
  const leading = leadingIn(changes)
  const facts = (some: readonly RecordChange[]) => some.flatMap(change => factOf(kinds, change))
  const own = facts(changes.filter(change => !goesAlong(kinds, change, leading)))
  return own.length === 0 ? facts(changes.slice(0, 1)) : own
}

function factOf(kinds: Kinded, change: RecordChange): Fact[] {
  const about = conductOf(kinds, change.table).about(change)
  if (about === undefined) return []
  const { place = null, person = null, team = null, byAddress = false } = about
  return [{ change, act: about.act, place, person, team, byAddress }]
}
