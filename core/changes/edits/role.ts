import { rowOf, rowsBy } from '../../base/collection.ts'
import { isSame } from '../../base/same.ts'
import { ok, refused } from '../../base/result.ts'
import type { Person, Scope } from '../../people/person.ts'
import { type Context, type EditRule, isTaken, wrongSpan } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { lacksRole, type Offered } from './invite.ts'
import { lacksOver } from './person.ts'
import type { HoldingId, PersonId, RoleId } from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'

export interface AssignRole {
  readonly kind: 'role.assign'
  readonly holding: HoldingId
  readonly person: PersonId
  readonly role: RoleId
  readonly scope: Scope
  readonly from: Instant | null
  readonly until: Instant | null
}

/** Gives somebody a role over a scope. */
export const assignRole: EditRule<AssignRole> = {
  kind: 'role.assign',
  lacks: (context, edit) => {
    const person = rowOf(context.before.state.persons, edit.person)
    if (person !== undefined) return lacksRoleFor(context, edit, person)
    // Invited in the same change set: judged there, and given more as with the invitation itself.
    const invited = rowOf(context.now.state.persons, edit.person)
    return invited === undefined
      ? { code: 'unknown', what: 'person' }
      : lacksRole(context, edit, { over: invited.kind, teams: [] })
  },
  apply: (context, { holding: id, person, role, scope, from, until }) => {
    const { state } = context.now
    const wrong = wrongSpan(context, from, until)
    if (wrong !== undefined) return refused(wrong)
    if (rowOf(state.roles, role) === undefined) return refused({ code: 'unknown', what: 'role' })
    if (scope.over === 'team' && rowOf(state.teams, scope.team) === undefined)
      return refused({ code: 'unknown', what: 'team' })
    const isHeld = rowsBy(state.holdings, 'person', person).some(
      each => each.role === role && isSame(each.scope, scope),
    )
    if (isHeld || isTaken(state, 'holdings', id)) return refused({ code: 'already-there', what: 'role' })
    return ok([{ table: 'holdings', id, before: null, after: { id, person, role, scope, from, until } }])
  },
}

export interface UnassignRole {
  readonly kind: 'role.unassign'
  readonly holding: HoldingId
}

/** Giving up one's own role needs nothing. */
export const unassignRole: EditRule<UnassignRole> = {
  kind: 'role.unassign',
  lacks: (context, edit) => {
    const before = rowOf(context.before.state.holdings, edit.holding)
    const person = before === undefined ? undefined : rowOf(context.before.state.persons, before.person)
    if (before === undefined || person === undefined) return { code: 'unknown', what: 'role' }
    return before.person === context.author ? undefined : lacksRoleFor(context, before, person)
  },
  apply: (context, edit) => {
    const before = rowOf(context.now.state.holdings, edit.holding)
    if (before === undefined) return refused({ code: 'unknown', what: 'role' })
    return ok([{ table: 'holdings', id: before.id, before, after: null }])
  },
}

/** Assigning roles over that person, within rank: below one's own, for a person below one, holding nothing one lacks. */
export function lacksRoleFor(context: Context, offered: Offered, person: Person): Refusal | undefined {
  const teams = rowsBy(context.before.state.memberships, 'person', person.id).map(each => each.team)
  return (
    lacksOver(context, person.id, 'assign roles') ?? lacksRole(context, offered, { over: person.kind, teams })
  )
}
