import { rowOf, rowsBy } from '../base/collection.ts'
import type { PersonId, TeamId } from '../base/ids.ts'
import { isLive } from '../base/instant.ts'
import type { RoleId } from '../base/ids.ts'
import { isAsleep, type Privilege, type ScopeKind } from '../levels/privilege.ts'
import type { Scope } from '../people/person.ts'
import { ownerRole, privilegesOf, type Role } from '../people/role.ts'
import type { Snapshot } from '../state/state.ts'
import { subjectOf } from './subject.ts'

/** What one role gives a person: the privileges that have effect over its scope, how high it ranks, over whom. */
export interface Power {
  readonly role: RoleId
  readonly privileges: ReadonlySet<Privilege>
  readonly rank: number
  readonly scope: Scope
}

/** Whom or what a privilege is wanted for. */
export type Target =
  { readonly over: 'workspace' } | { readonly over: 'member' | 'guest'; readonly teams: readonly TeamId[] }

export const entireWorkspace: Target = { over: 'workspace' }

/** None for somebody who is not active. */
export const powersOf = (snapshot: Snapshot, person: PersonId): Power[] =>
  subjectOf(snapshot, person)?.isActive === true ? powersAsIfActive(snapshot, person) : []

/** The same for somebody who is not here yet. */
export function powersAsIfActive(snapshot: Snapshot, person: PersonId): Power[] {
  return rowsBy(snapshot.state.holdings, 'person', person)
    .filter(holding => isLive(holding, snapshot.at))
    .flatMap(holding => {
      const role = rowOf(snapshot.state.roles, holding.role)
      if (role === undefined) return []
      const { scope } = holding
      return [{ role: role.id, privileges: awakeIn(role, scope.over), rank: role.rank, scope }]
    })
}

const awake = new WeakMap<Role, Map<ScopeKind, ReadonlySet<Privilege>>>()

/** What of a role has effect over such a scope: worked out once for a role, which never changes. */
function awakeIn(role: Role, over: ScopeKind): ReadonlySet<Privilege> {
  const kept = awake.get(role) ?? new Map<ScopeKind, ReadonlySet<Privilege>>()
  awake.set(role, kept)
  const known = kept.get(over)
  if (known !== undefined) return known
  const found = new Set([...privilegesOf(role)].filter(each => !isAsleep(each, over)))
  kept.set(over, found)
  return found
}

/** A privilege over somebody or something. */
export interface Wanted {
  readonly privilege: Privilege
  readonly target: Target
}

/** The rank of the highest role through which a person holds what is wanted; `undefined` if by none. */
export function rankFor(
  snapshot: Snapshot,
  person: PersonId,
  { privilege, target }: Wanted,
): number | undefined {
  const ranks = powersOf(snapshot, person)
    .filter(power => power.privileges.has(privilege) && covers(power.scope, target))
    .map(power => power.rank)
  return ranks.length === 0 ? undefined : Math.max(...ranks)
}

/** Whether a person holds the privilege over the whole workspace. */
export const mayUse = (snapshot: Snapshot, person: PersonId, privilege: Privilege): boolean =>
  rankFor(snapshot, person, { privilege, target: entireWorkspace }) !== undefined

function covers(scope: Scope, target: Target): boolean {
  if (scope.over === 'workspace') return true
  if (target.over === 'workspace') return false
  return scope.over === 'guests' ? target.over === 'guest' : target.teams.includes(scope.team)
}

/** The active owners. */
export const ownersOf = (snapshot: Snapshot): PersonId[] =>
  rowsBy(snapshot.state.holdings, 'role', ownerRole)
    .filter(holding => isLive(holding, snapshot.at))
    .map(holding => holding.person)
    .filter(person => subjectOf(snapshot, person)?.isActive === true)
