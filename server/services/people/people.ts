import type { PersonName, PlaceName } from '#contract/views/names.ts'
import type {
  HoldingView,
  ManagedView,
  PersonAct,
  PersonDetailView,
  PersonTeamView,
  PersonView,
  PowerView,
} from '#contract/views/people.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { PersonId } from '#core/base/ids.ts'
import { isLive } from '#core/base/instant.ts'
import { actionsAsIfActive } from '#core/access/evaluate.ts'
import { placeOf } from '#core/access/place.ts'
import { takesSeat } from '#core/access/seats.ts'
import { isActive, peopleOf, subjectOf, teamsOf } from '#core/access/subject.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { knowsTeam } from '#core/changes/context.ts'
import { lacksHandingOn, lacksInviting } from '#core/changes/edits/invitation.ts'
import { lacksOver } from '#core/changes/edits/person.ts'
import { unassignRole } from '#core/changes/edits/role.ts'
import { isLastOwner } from '#core/changes/guards/owner-left.ts'
import { has } from '#core/levels/action.ts'
import { allPrivileges, isAsleep, type Privilege } from '#core/levels/privilege.ts'
import { ownerRole, privilegesOf } from '#core/people/role.ts'
import type { Holding, Person } from '#core/people/person.ts'
import { type Snapshot, pathOf } from '#core/state/state.ts'
import { lastSeenOf, signInsOf } from '../../store/sessions.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, asks, knowsPerson, nameOf } from '../viewer/asker.ts'
import { mayAskOf } from '../viewer/questions.ts'
import { deviceOf, publicId } from '../account/sign-ins.ts'
import { managerOf, managesPeople, overWords } from '../viewer/managing.ts'

/**
 * Whom the asker finds in lists, by name: who is here, and whoever else the asker looks after, the invited too. Who sees
 * people of a scope only finds those.
 */
export function peopleFor(asker: Asker): Person[] {
  const seesAll = asks(asker, 'view people')
  if (!seesAll && !managesPeople(asker)) throw problemOf('not-found')
  const keeps = managerOf(asker)
  return byName(asker.snapshot).filter(
    person => keeps(person) || (seesAll && isActive(asker.snapshot, person)),
  )
}

const sorted = new WeakMap<object, readonly Person[]>()

/** Everybody in the order of their names: worked out once for as long as nobody comes, goes or changes. */
function byName(snapshot: Snapshot): readonly Person[] {
  const { persons } = snapshot.state
  const known = sorted.get(persons)
  if (known !== undefined) return known
  const people = [...peopleOf(snapshot)].sort((a, b) => compareWords(callOf(a), callOf(b)))
  sorted.set(persons, people)
  return people
}

export const callOf = ({ name, mail }: Person): string => name || mail

/** As much of everybody as picking somebody takes, by name. */
export const namesView = (asker: Asker): PersonName[] => peopleFor(asker).map(nameView)

export const nameView = (person: Person): PersonName => {
  const { id, mail, kind, status } = person
  return { id, name: callOf(person), mail, kind, status }
}

export const personView = (parts: Parts, asker: Asker, person: Person): PersonView => ({
  ...profileView(asker, person),
  managed: managerOf(asker)(person) ? keepingView(parts, asker, person) : null,
})

/** What everybody who finds somebody is told of them. */
export function profileView(asker: Asker, person: Person): Omit<PersonView, 'managed'> {
  const { snapshot } = asker
  const { handle, title, department, country, picture, joinedAt, contact } = person
  return {
    ...nameView(person),
    handle,
    title,
    department,
    country,
    picture,
    teams: personTeams(asker, person),
    joinedAt,
    contact: contact === null ? null : { id: contact, name: nameOf(snapshot, contact) },
  }
}

/** The teams of somebody that the asker knows of. */
export const personTeams = ({ snapshot, person: reader }: Asker, person: Person): PersonTeamView[] =>
  teamsOf(snapshot, person)
    .filter(({ team }) => knowsTeam(snapshot, reader, team))
    .map(({ team, lead }) => {
      const row = rowOf(snapshot.state.teams, team)
      return { id: team, name: row?.name ?? '', lead, isForAll: row?.joining === 'everyone' }
    })
    .sort((a, b) => compareWords(a.name, b.name))

const keepingView = (parts: Parts, asker: Asker, person: Person): ManagedView => ({
  ...personStatusView(parts, asker, person),
  reaches: person.kind === 'guest' ? reachedByGuest(asker, person) : null,
  may: actsOver(asker, person),
})

export type PersonStatus = Omit<ManagedView, 'reaches' | 'may'>

/** How somebody stands here: what lists and tables of many tell without weighing what may be done about each. */
export function personStatusView(parts: Parts, asker: Asker, person: Person): PersonStatus {
  const { snapshot, workspace } = asker
  const { state } = snapshot
  const { account, from, until, invitedBy } = person
  const [invitation] = rowsBy(state.invitations, 'person', person.id)
  return {
    roles: rowsBy(state.holdings, 'person', person.id).map(each => holdingView(asker, each)),
    from,
    until,
    lastActive: lastSeenOf(parts.sessions, workspace, person.id),
    takesSeat: takesSeat(snapshot, person),
    hasTwoStep: account !== null && parts.secured.has(account),
    isConfirmed: account === null || !parts.unproven.has(account),
    invitedBy: invitedBy === null ? null : nameOf(snapshot, invitedBy),
    invitation:
      invitation === undefined
        ? null
        : {
            by: nameOf(snapshot, invitation.by),
            at: invitation.at,
            until: invitation.until,
            message: invitation.message,
          },
  }
}

/** Read from the grants that match: a guest has few, and a tree many places. */
function reachedByGuest(asker: Asker, { id }: Person): PlaceName[] {
  const { snapshot } = asker
  const subject = subjectOf(snapshot, id)
  if (subject === undefined) return []
  const named = [...subject.principals].flatMap(each => rowsBy(snapshot.state.grants, 'principal', each))
  const reached = new Set(
    named
      .map(grant => grant.node)
      .filter(node => {
        const place = placeOf(snapshot, node)
        return place !== undefined && has(actionsAsIfActive(snapshot, subject, place), 'see')
      }),
  )
  return [...reached]
    .filter(
      node =>
        !pathOf(snapshot.state, node)
          .slice(1)
          .some(above => reached.has(above.id)),
    )
    .filter(node => mayAskOf(asker, id, node))
    .map(node => ({ id: node, name: rowOf(snapshot.state.nodes, node)?.name ?? '' }))
    .sort((a, b) => compareWords(a.name, b.name))
}

const privilegeFor = {
  suspend: 'suspend',
  remove: 'remove',
  convert: 'invite members',
  assign: 'assign roles',
  describe: 'edit profiles',
  contact: 'invite guests',
  'reset sign-in': 'reset sign-in',
} as const satisfies Record<Exclude<PersonAct, 'invite' | 'pass on'>, Privilege>

/** What takes somebody's time here away, and what the last owner cannot do or suffer. */
const leaving: ReadonlySet<PersonAct> = new Set(['suspend', 'remove', 'convert'])

/** What of these the asker may do about somebody. */
function actsOver({ person: author, snapshot }: Asker, person: Person): PersonAct[] {
  const context = { author, before: snapshot, now: snapshot }
  const isNeeded = isLastOwner(snapshot, person.id)
  const over = (Object.keys(privilegeFor) as (keyof typeof privilegeFor)[]).filter(
    act => lacksOver(context, person.id, privilegeFor[act]) === undefined && !(isNeeded && leaving.has(act)),
  )
  if (person.status !== 'invited') return over
  if (lacksInviting(context, person) !== undefined) return []
  const handing: PersonAct[] = lacksHandingOn(context, person) === undefined ? ['pass on'] : []
  return [
    'invite',
    ...handing,
    ...over.filter(act => act === 'convert' || act === 'assign' || act === 'describe'),
  ]
}

/** Whether the asker may take a role from who holds it: one's own, or within rank; never the last owner's. */
export function mayTake({ snapshot, person: author }: Asker, { id, role, person }: Holding): boolean {
  const context = { author, before: snapshot, now: snapshot }
  if (unassignRole.lacks(context, { kind: 'role.unassign', holding: id }) !== undefined) return false
  return role !== ownerRole || !isLastOwner(snapshot, person)
}

export function holdingView(asker: Asker, { id, role, scope, from, until }: Holding): HoldingView {
  const name = rowOf(asker.snapshot.state.roles, role)?.name ?? ''
  return { id, role, name, over: overWords(asker, scope), from, until }
}

/** One person by id or by a handle that they have or had. */
export async function personDetail(parts: Parts, asker: Asker, id: string): Promise<PersonDetailView> {
  const { state } = asker.snapshot
  const handle = id.startsWith('@') ? rowOf(state.handles, id.slice(1) as never) : undefined
  const person = rowOf(state.persons, handle?.person ?? (id as PersonId))
  if (person === undefined || person.status === 'removed' || !mayLookAt(asker, person))
    throw problemOf('not-found')
  const view = personView(parts, asker, person)
  const mayReset = view.managed?.may.includes('reset sign-in') === true || person.id === asker.person
  return {
    ...view,
    formerHandles: rowsBy(state.handles, 'person', person.id)
      .map(each => each.id)
      .filter(each => each !== person.handle),
    agreedAt: view.managed === null ? null : person.agreedAt,
    powers: powersFor(asker, view),
    takeable: takeableFor(asker, view),
    signIns: mayReset && person.account !== null ? await signInsFor(parts, person) : null,
  }
}

/** Those of somebody's roles that the asker may take from them. */
const takeableFor = (asker: Asker, { id, managed }: PersonView): string[] =>
  managed === null
    ? []
    : rowsBy(asker.snapshot.state.holdings, 'person', id as PersonId)
        .filter(holding => mayTake(asker, holding))
        .map(holding => holding.id)

/** What the roles of somebody let them do, each privilege with where it comes from; to who may know their roles. */
function powersFor(asker: Asker, { id, managed }: PersonView): PowerView[] | null {
  const { snapshot } = asker
  if (managed === null && id !== asker.person) return null
  const held = rowsBy(snapshot.state.holdings, 'person', id)
    .filter(holding => isLive(holding, snapshot.at))
    .flatMap(({ role: roleId, scope }) => {
      const role = rowOf(snapshot.state.roles, roleId)
      if (role === undefined) return []
      return [{ role: role.name, scope, privileges: privilegesOf(role) }]
    })
  return allPrivileges.flatMap(privilege => {
    const from = held
      .filter(each => each.privileges.has(privilege))
      .map(({ role, scope }) => ({
        role,
        over: overWords(asker, scope),
        isAsleep: isAsleep(privilege, scope.over),
      }))
    return from.length === 0 ? [] : [{ privilege, from }]
  })
}

/** Guests look at themselves and at whom they turn to. */
const mayLookAt = (asker: Asker, person: Person): boolean =>
  knowsPerson(asker, person.id) &&
  (person.id === asker.person || isActive(asker.snapshot, person) || managerOf(asker)(person))

async function signInsFor({ sessions }: Parts, { account }: Person) {
  const rows = account === null ? [] : await signInsOf(sessions, account)
  return rows.map(({ sid, agent }) => ({
    at: deviceOf(agent ?? ''),
    lastUsed: lastSeenOf(sessions, '', publicId(sid)),
  }))
}
