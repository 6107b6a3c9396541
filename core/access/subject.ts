import { eachRow, rowOf, rowsBy } from '../base/collection.ts'
import type { PersonId, TeamId } from '../base/ids.ts'
import { isLive } from '../base/instant.ts'
import type { Membership, Person, Team } from '../people/person.ts'
import { leadsPrincipal, personPrincipal, type Principal, teamPrincipal } from '../rules/principal.ts'
import type { Snapshot } from '../state/state.ts'

/** A person as grants and limits see it: the principals that match, and through which team. */
export interface Subject {
  readonly person: Person
  readonly isGuest: boolean
  /** Whether the person has access at all; the rest is answered as if it had. */
  readonly isActive: boolean
  readonly principals: ReadonlySet<Principal>
}

const known = new WeakMap<Snapshot, Map<PersonId, Subject>>()

/** `undefined` if there is no such person. Kept for as long as the snapshot is. */
export function subjectOf(snapshot: Snapshot, id: PersonId): Subject | undefined {
  const subjects = known.get(snapshot) ?? new Map<PersonId, Subject>()
  known.set(snapshot, subjects)
  const kept = subjects.get(id)
  if (kept !== undefined) return kept
  const person = rowOf(snapshot.state.persons, id)
  if (person === undefined) return undefined
  const subject = createSubject(snapshot, person)
  subjects.set(id, subject)
  return subject
}

function createSubject(snapshot: Snapshot, person: Person): Subject {
  const isGuest = person.kind === 'guest'
  const principals = new Set<Principal>([
    personPrincipal(person.id),
    'anyone',
    isGuest ? 'guests' : 'everyone',
  ])
  for (const { team, lead } of teamsOf(snapshot, person)) {
    principals.add(teamPrincipal(team))
    if (lead) principals.add(leadsPrincipal(team))
  }
  return { person, isGuest, isActive: isActive(snapshot, person), principals }
}

export const isActive = (snapshot: Snapshot, person: Person): boolean =>
  person.status === 'active' && isLive(person, snapshot.at)

/** Invited, or here from a later day on: answered as if they were here already, and marked. */
export function isComing(snapshot: Snapshot, person: Person): boolean {
  const hasEnded = person.until !== null && person.until <= snapshot.at
  return (
    !hasEnded && (person.status === 'invited' || (person.status === 'active' && !isLive(person, snapshot.at)))
  )
}

/** The teams that count for a person now; those that hold all members are among them. */
export function teamsOf(snapshot: Snapshot, person: Person): { team: TeamId; lead: boolean }[] {
  const counting = rowsBy(snapshot.state.memberships, 'person', person.id)
    .filter(membership => counts(snapshot, membership, person))
    .map(({ team, lead }) => ({ team, lead: lead && person.kind === 'member' }))
  if (person.kind === 'guest') return counting
  const joined = new Set(counting.map(each => each.team))
  const forAll = rowsBy(snapshot.state.teams, 'joining', 'everyone').filter(team => !joined.has(team.id))
  return [...counting, ...forAll.map(team => ({ team: team.id, lead: false }))]
}

/** A membership counts while it is live; that of a guest sleeps in a team that does not welcome guests. */
export function counts(snapshot: Snapshot, membership: Membership, person: Person): boolean {
  if (!isLive(membership, snapshot.at)) return false
  return person.kind === 'member' || rowOf(snapshot.state.teams, membership.team)?.welcomesGuests === true
}

/** The people in a team now, active or not yet. */
export function peopleIn(snapshot: Snapshot, team: Team): { person: Person; lead: boolean }[] {
  const found = new Map<PersonId, { person: Person; lead: boolean }>()
  for (const membership of rowsBy(snapshot.state.memberships, 'team', team.id)) {
    const person = rowOf(snapshot.state.persons, membership.person)
    if (person !== undefined && counts(snapshot, membership, person))
      found.set(person.id, { person, lead: membership.lead && person.kind === 'member' })
  }
  if (team.joining !== 'everyone') return [...found.values()]
  for (const person of membersOf(snapshot))
    if (!found.has(person.id)) found.set(person.id, { person, lead: false })
  return [...found.values()]
}

const membersOf = (snapshot: Snapshot): Person[] =>
  [...peopleOf(snapshot)].filter(person => person.kind === 'member' && person.status === 'active')

/** Everyone who is in the workspace or invited to it. */
export function* peopleOf(snapshot: Snapshot): Generator<Person> {
  for (const person of eachRow(snapshot.state.persons)) if (person.status !== 'removed') yield person
}
