import type { NodeId, PersonId, TeamId } from '../base/ids.ts'
import type { RecordChange } from '../state/state.ts'
import { isConsequence, leadingChangesIn } from './consequences.ts'
import { conductOf, type Kinded } from './conduct.ts'

/** What kind of thing was done: what a history is looked through by. */
export const auditCategories = [
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
export type AuditCategory = (typeof auditCategories)[number]

/** Whom and what something that was done is about: who may know of it hangs on these. */
export interface AuditSubject {
  readonly category: AuditCategory
  readonly place: NodeId | null
  readonly person: PersonId | null
  readonly team: TeamId | null
  /** The place is named by its address, whether or not there is one. */
  readonly byAddress: boolean
  /** Of a place: what it lies in, or lay in. */
  readonly parent: NodeId | null
}

/** One thing that a change set did. */
export interface AuditEvent extends AuditSubject {
  readonly change: RecordChange
}

/**
 * What a change set did, one fact a record. Records that only go along with another are left out: the
 * copies of a break, what comes with an invitation or a team, a member's private folder, what hung on
 * somebody who left, what was in a place that was deleted. Costs what the changes cost.
 */
export function auditEventsOf(kinds: Kinded, changes: readonly RecordChange[]): AuditEvent[] {
  const leading = leadingChangesIn(changes)
  const events = (some: readonly RecordChange[]) => some.flatMap(change => eventOf(kinds, change))
  const own = events(changes.filter(change => !isConsequence(kinds, change, leading)))
  return own.length === 0 ? events(changes.slice(0, 1)) : own
}

/** Whom and what each change is about, also of those that go along with others. */
export const subjectsOf = (kinds: Kinded, changes: readonly RecordChange[]): AuditEvent[] =>
  changes.flatMap(change => eventOf(kinds, change))

function eventOf(kinds: Kinded, change: RecordChange): AuditEvent[] {
  const about = conductOf(kinds, change.table).about(change)
  if (about === undefined) return []
  const { place = null, person = null, team = null, byAddress = false } = about
  const parent = change.table === 'nodes' ? ((change.after ?? change.before)?.parent ?? null) : null
  return [{ change, category: about.category, place, person, team, byAddress, parent }]
}
