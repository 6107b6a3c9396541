import { allRows, rowOf, rowsBy } from '../../base/collection.ts'
import type { PersonId } from '../../base/ids.ts'
import { actionsGiven } from '../../access/place.ts'
import { has } from '../../levels/action.ts'
import { guestRole } from '../../people/role.ts'
import { partsOf, personPrincipal, type Principal } from '../../rules/principal.ts'
import { privateFolderOf, type RecordChange, type State } from '../../state/state.ts'
import type { GuestRule } from '../refusal.ts'
import type { Guard, ProposedChanges } from './guard.ts'

/**
 * No change leaves a guest leading a team, standing in one that does not welcome guests, holding a role or a grant by
 * name with share, seal or publish, or with a private folder. The whole set counts, in whichever order it was made; what
 * was wrong before is nobody's to mend on the way.
 */
export const guests: Guard = proposed => {
  for (const person of affectedPeople(proposed)) {
    const known = new Set(guestFaultsOf(proposed.before.state, person).map(each => each.key))
    const fault = guestFaultsOf(proposed.after.state, person).find(each => !known.has(each.key))
    if (fault !== undefined) return { code: 'guest-rule', rule: fault.rule, person }
  }
  return undefined
}

interface Fault {
  readonly rule: GuestRule
  /** Tells it from others of the same person. */
  readonly key: string
}

/** What no guest may have, of what a guest has. */
export function guestFaultsOf(state: State, id: PersonId): Fault[] {
  if (rowOf(state.persons, id)?.kind !== 'guest') return []
  const folder = privateFolderOf(state, id)
  return [
    ...rowsBy(state.memberships, 'person', id).flatMap(({ team, lead }): Fault[] => [
      ...(lead ? [{ rule: 'leads no team', key: `leads ${team}` } as const] : []),
      ...(rowOf(state.teams, team)?.welcomesGuests === true
        ? []
        : [{ rule: 'not welcome', key: `in ${team}` } as const]),
    ]),
    ...rowsBy(state.holdings, 'person', id)
      .filter(each => each.role !== guestRole)
      .map((each): Fault => ({ rule: 'no role', key: `holds ${each.id}` })),
    ...rowsBy(state.grants, 'principal', personPrincipal(id)).flatMap(grant =>
      stewarding
        .filter(action => has(actionsGiven(state, grant.gives), action))
        .map((action): Fault => ({ rule: 'no stewardship', key: `${action} by ${grant.id}` })),
    ),
    ...(folder === undefined || folder.binned !== null
      ? []
      : [{ rule: 'no private folder', key: 'folder' } as const]),
  ]
}

const stewarding = ['share', 'seal', 'publish'] as const

/** Everybody for whom a change can bring such a fault about. */
const affectedPeople = (proposed: ProposedChanges): ReadonlySet<PersonId> =>
  new Set(proposed.changes.flatMap(change => peopleIn(proposed.after.state, change)))

function peopleIn(state: State, change: RecordChange): readonly PersonId[] {
  switch (change.table) {
    case 'persons':
      return [change.id]
    case 'memberships':
    case 'holdings':
      return change.after === null ? [] : [change.after.person]
    case 'teams':
      return rowsBy(state.memberships, 'team', change.id).map(each => each.person)
    case 'grants':
      return change.after === null ? [] : personIn(change.after.principal)
    case 'levels':
      return allRows(state.grants).flatMap(grant =>
        grant.gives === change.id ? personIn(grant.principal) : [],
      )
    case 'nodes':
      return change.after?.home?.of === 'person' ? [change.after.home.person] : []
    default:
      return []
  }
}

function personIn(principal: Principal): PersonId[] {
  const parts = partsOf(principal)
  return parts.kind === 'person' ? [parts.person] : []
}
