import type { HolderView, RoleDetailView, RoleToAssignView, RolesView } from '#contract/views/roles.ts'
import { powersOf, rankFor, entireWorkspace } from '#core/access/powers.ts'
import { allRows, rowOf, rowsBy } from '#core/base/collection.ts'
import type { PersonId, RoleId } from '#core/base/ids.ts'
import { isOver } from '#core/base/instant.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { knowsTeam } from '#core/changes/context.ts'
import { lacksOver } from '#core/changes/edits/person.ts'
import { lacksRoleFor } from '#core/changes/edits/role.ts'
import { lacksRoleChange } from '#core/changes/edits/role-made.ts'
import { allPrivileges, isAsleep, type Privilege } from '#core/levels/privilege.ts'
import type { Holding, Person, Scope } from '#core/people/person.ts'
import { guestRole, privilegesOf, type Role } from '#core/people/role.ts'
import { workspaceOf } from '#core/state/state.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, asks, knowsPerson, nameOf } from '../viewer/asker.ts'
import { callOf, mayTake, nameView } from '../people/people.ts'
import { overWords } from '../viewer/managing.ts'

/** All roles with who holds them, and what of them the asker may change. */
export function rolesView(asker: Asker): RolesView {
  if (!asks(asker, 'view roles')) throw problemOf('not-found')
  const { snapshot, person } = asker
  const below = rankFor(snapshot, person, { privilege: 'edit roles', target: entireWorkspace }) ?? null
  const mine = allPrivileges.flatMap(privilege => {
    const rank = rankFor(snapshot, person, { privilege, target: entireWorkspace })
    return rank === undefined || privilege === 'own' ? [] : [[privilege, rank] as const]
  })
  return {
    roles: byRank(allRows(snapshot.state.roles)).map(role => roleView(asker, role)),
    people: peopleByPrivilege(asker),
    mine: below === null ? {} : Object.fromEntries(mine),
    below: asks(asker, 'own') && below !== null ? below + 1 : below,
  }
}

const byRank = (roles: readonly Role[]): Role[] =>
  roles.toSorted((a, b) => b.rank - a.rank || compareWords(a.name, b.name))

function roleView(asker: Asker, role: Role): RoleDetailView {
  const { snapshot, person: author } = asker
  const { state } = snapshot
  const { id, name, note, rank, addressable, seatExempt, builtIn, madeAt, madeBy } = role
  const { defaultRole, twoStepFor } = workspaceOf(state)
  const offers = [...allRows(state.welcomeSets), ...allRows(state.joinLinks)]
  const context = { author, before: snapshot, now: snapshot }
  const mayInvite = asks(asker, 'invite members')
  return {
    id,
    name,
    note,
    rank,
    privileges: [...privilegesOf(role)],
    addressable,
    seatExempt,
    builtIn,
    madeAt,
    madeBy: madeBy === null || !knowsPerson(asker, madeBy) ? null : nameOf(snapshot, madeBy),
    people: new Set(holdersOf(asker, id).map(each => each.person.id)).size,
    mayChange: lacksRoleChange(context, role, role) === undefined,
    isDefault: defaultRole === id,
    asksTwoStep: twoStepFor.includes(id),
    offeredBy: offers
      .filter(each => each.offer.role === id)
      .map(each => (mayInvite ? each.name : 'a way in')),
  }
}

interface Held {
  readonly holding: Holding
  readonly person: Person
}

/** Who holds a role and has not left; what is over is not held. */
function holdersOf({ snapshot }: Asker, role: RoleId): Held[] {
  return rowsBy(snapshot.state.holdings, 'role', role).flatMap(holding => {
    const person = rowOf(snapshot.state.persons, holding.person)
    const isHeld = person !== undefined && person.status !== 'removed' && !isOver(holding, snapshot.at)
    return isHeld ? [{ holding, person }] : []
  })
}

function peopleByPrivilege(asker: Asker): Record<Privilege, number> {
  const found = new Map<Privilege, Set<PersonId>>(allPrivileges.map(each => [each, new Set()]))
  for (const role of allRows(asker.snapshot.state.roles)) {
    const people = holdersOf(asker, role.id)
    for (const privilege of privilegesOf(role))
      for (const { holding, person } of people)
        if (!isAsleep(privilege, holding.scope.over)) found.get(privilege)?.add(person.id)
  }
  return Object.fromEntries([...found].map(([privilege, people]) => [privilege, people.size])) as Record<
    Privilege,
    number
  >
}

/** Who holds one role, over whom and until when. */
export function holdersView(asker: Asker, id: string): HolderView[] {
  if (!asks(asker, 'view roles') || !asks(asker, 'view people')) throw problemOf('not-found')
  const role = rowOf(asker.snapshot.state.roles, id as RoleId)
  if (role === undefined) throw problemOf('not-found')
  return holdersOf(asker, role.id)
    .sort((a, b) => compareWords(callOf(a.person), callOf(b.person)))
    .map(({ holding, person }) => ({
      holding: holding.id,
      person: nameView(person),
      scope: holding.scope,
      over: overWords(asker, holding.scope),
      from: holding.from,
      until: holding.until,
      mayTake: mayTake(asker, holding),
    }))
}

/** The roles that the asker may give to somebody, each with over what, and what of it would have no effect there. */
export function rolesToAssign(asker: Asker, id: string): RoleToAssignView[] {
  const { snapshot, person: author } = asker
  const person = rowOf(snapshot.state.persons, id as PersonId)
  const context = { author, before: snapshot, now: snapshot }
  if (person === undefined || lacksOver(context, person.id, 'assign roles') !== undefined)
    throw problemOf('not-found')
  const scopes = scopesOf(asker)
  const given = allRows(snapshot.state.roles).filter(
    role => role.id !== guestRole && person.kind === 'member',
  )
  return byRank(given).flatMap(role => {
    const held = [...privilegesOf(role)]
    const fitting = scopes.filter(
      scope => lacksRoleFor(context, { role: role.id, scope }, person) === undefined,
    )
    if (fitting.length === 0) return []
    return [
      {
        id: role.id,
        name: role.name,
        note: role.note,
        privileges: held,
        scopes: fitting.map(scope => ({
          scope: scope,
          name: overWords(asker, scope) ?? 'the whole workspace',
          asleep: held.filter(each => isAsleep(each, scope.over)),
        })),
      },
    ]
  })
}

/** Over what the asker could give roles: everything, or just that over which they hold one. */
function scopesOf({ snapshot, person }: Asker): Scope[] {
  const assigning = powersOf(snapshot, person).filter(power => power.privileges.has('assign roles'))
  if (!assigning.some(power => power.scope.over === 'workspace')) return assigning.map(power => power.scope)
  const teams = allRows(snapshot.state.teams)
    .filter(team => !team.archived && knowsTeam(snapshot, person, team.id))
    .sort((a, b) => compareWords(a.name, b.name))
  return [
    { over: 'workspace' },
    { over: 'guests' },
    ...teams.map(team => ({ over: 'team', team: team.id }) as const),
  ]
}
