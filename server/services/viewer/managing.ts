import { powersOf } from '#core/access/powers.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import type { Asker } from './asker.ts'
import type { Person, Scope } from '#core/people/person.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import { knowsTeam } from '#core/changes/context.ts'

/** Each of these makes its holder somebody who looks after people, over whomever it is held. */
const managing: readonly Privilege[] = [
  'invite members',
  'invite guests',
  'edit profiles',
  'reset sign-in',
  'suspend',
  'remove',
  'assign roles',
]

/** Over whom the asker looks after people. */
const managedBy = ({ snapshot, person }: Asker): readonly Scope[] =>
  powersOf(snapshot, person)
    .filter(power => managing.some(each => power.privileges.has(each)))
    .map(power => power.scope)

/** Whether the asker looks after anybody: others are shown colleagues, without their status. */
export const managesPeople = (asker: Asker): boolean => managedBy(asker).length > 0

/** Tells of each person whether the asker looks after them: read once, then cheap for many. */
export function managerOf(asker: Asker): (person: Person) => boolean {
  const scopes = managedBy(asker)
  if (scopes.some(scope => scope.over === 'workspace')) return () => true
  const teams = new Set(scopes.flatMap(scope => (scope.over === 'team' ? [scope.team] : [])))
  const managesGuests = scopes.some(scope => scope.over === 'guests')
  const { memberships } = asker.snapshot.state
  return person =>
    (managesGuests && person.kind === 'guest') ||
    (teams.size > 0 && rowsBy(memberships, 'person', person.id).some(each => teams.has(each.team)))
}

/** Over whom a role is held, in words; `null` for the whole workspace. */
export function overWords({ snapshot, person }: Asker, scope: Scope): string | null {
  if (scope.over === 'workspace') return null
  if (scope.over === 'guests') return 'guests'
  return knowsTeam(snapshot, person, scope.team)
    ? (rowOf(snapshot.state.teams, scope.team)?.name ?? '')
    : 'a team'
}
