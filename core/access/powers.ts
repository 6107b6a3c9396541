import { rowOf, rowsBy } from '../base/collection.ts'
import type { PersonId, TeamId } from '../base/ids.ts'
import { isLive } from '../base/instant.ts'
import { isPrivilege, type Privilege, privileges, type PrivilegeSet } from '../levels/privilege.ts'
import type { Scope } from '../people/person.ts'
import type { Moment } from '../state/state.ts'
import { subjectOf } from './subject.ts'

/** What one role gives a person: its privileges, how high it ranks, over whom. */
export interface Power {
  readonly privileges: PrivilegeSet
  readonly rung: number
  readonly scope: Scope
}

/** Whom or what a privilege is wanted for. */
export type Target =
  { readonly over: 'workspace' } | { readonly over: 'member' | 'guest'; readonly teams: readonly TeamId[] }

export const wholeWorkspace: Target = { over: 'workspace' }

/** None for somebody who is not active. */
export function powersOf(moment: Moment, person: PersonId): Power[] {
  if (subjectOf(moment, person)?.isActive !== true) return []
  return rowsBy(moment.state.holdings, 'person', person)
    .filter(holding => isLive(holding, moment.at))
    .flatMap(holding => {
      const role = rowOf(moment.state.roles, holding.role)
      if (role === undefined) return []
      return [
        {
          privileges: privileges(...role.privileges.filter(isPrivilege)),
          rung: role.rung,
          scope: holding.scope,
        },
      ]
    })
}

/** A privilege over somebody or something. */
export interface Wanted {
  readonly privilege: Privilege
  readonly target: Target
}

/** The rung of the highest role through which a person holds what is wanted; `undefined` if by none. */
export function rungFor(moment: Moment, person: PersonId, { privilege, target }: Wanted): number | undefined {
  const rungs = powersOf(moment, person)
    .filter(power => power.privileges.has(privilege) && covers(power.scope, target))
    .map(power => power.rung)
  return rungs.length === 0 ? undefined : Math.max(...rungs)
}

/** Whether a person holds the privilege over the whole workspace. */
export const mayUse = (moment: Moment, person: PersonId, privilege: Privilege): boolean =>
  rungFor(moment, person, { privilege, target: wholeWorkspace }) !== undefined

function covers(scope: Scope, target: Target): boolean {
  if (scope.over === 'workspace') return true
  if (target.over === 'workspace') return false
  return scope.over === 'guests' ? target.over === 'guest' : target.teams.includes(scope.team)
}
