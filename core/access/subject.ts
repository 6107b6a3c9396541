import { eachRow, rowOf, rowsBy } from '../base/collection.ts'
import type { PersonId, TeamId } from '../base/ids.ts'
import { isLive } from '../base/instant.ts'
import type { Membership, Person, Team } from '../people/person.ts'
import { leadsPrincipal, personPrincipal, type Principal, teamPrincipal } from '../rules/principal.ts'
import type { Moment } from '../state/state.ts'

/** A person as grants and limits see it: the principals that match, and through which team. */
export interface Subject {
  readonly person: Person
  readonly isGuest: boolean
  /** Whether the person has access at all; the rest is answered as if it had. */
  readonly isActive: boolean
  readonly principals: ReadonlySet<Principal>
}

const known = new WeakMap<Moment, Map<PersonId, Subject>>()

/** `undefined` if there is no such person. Kept for as long as the moment is. */
export function subjectOf(moment: Moment, id: PersonId): Subject | undefined {
  const subjects = known.get(moment) ?? new Map<PersonId, Subject>()
  known.set(moment, subjects)
  const kept = subjects.get(id)
  if (kept !== undefined) return kept
  const person = rowOf(moment.state.persons, id)
  if (person === undefined) return undefined
  const subject = createSubject(moment, person)
  subjects.set(id, subject)
  return subject
}

function createSubject(moment: Moment, person: Person): Subject {
  const isGuest = person.kind === 'guest'
  const principals = new Set<Principal>([
    personPrincipal(person.id),
    'anyone',
    isGuest ? 'guests' : 'everyone',
  ])
  for (const { team, lead } of teamsOf(moment, person)) {
    principals.add(teamPrincipal(team))
    if (lead) principals.add(leadsPrincipal(team))
  }
  return { person, isGuest, isActive: isActive(moment, person), principals }
}

export const isActive = (moment: Moment, person: Person): boolean =>
  person.status === 'active' && isLive(person, moment.at)

/** Invited, or here from a later day on: answered as if they were here already, and marked. */
export function isComing(moment: Moment, person: Person): boolean {
  const hasEnded = person.until !== null && person.until <= moment.at
  return (
    !hasEnded && (person.status === 'invited' || (person.status === 'active' && !isLive(person, moment.at)))
  )
}

/** The teams that count for a person now; those that hold all members are among them. */
export function teamsOf(moment: Moment, person: Person): { team: TeamId; lead: boolean }[] {
  const counting = rowsBy(moment.state.memberships, 'person', person.id)
    .filter(membership => counts(moment, membership, person))
    .map(({ team, lead }) => ({ team, lead: lead && person.kind === 'member' }))
  if (person.kind === 'guest') return counting
  const joined = new Set(counting.map(each => each.team))
  const forAll = rowsBy(moment.state.teams, 'joining', 'everyone').filter(team => !joined.has(team.id))
  return [...counting, ...forAll.map(team => ({ team: team.id, lead: false }))]
}

/** A membership counts while it is live; that of a guest sleeps in a team that does not welcome guests. */
export function counts(moment: Moment, membership: Membership, person: Person): boolean {
  if (!isLive(membership, moment.at)) return false
  return person.kind === 'member' || rowOf(moment.state.teams, membership.team)?.welcomesGuests === true
}

/** The people in a team now, active or not yet. */
export function peopleIn(moment: Moment, team: Team): { person: Person; lead: boolean }[] {
  const found = new Map<PersonId, { person: Person; lead: boolean }>()
  for (const membership of rowsBy(moment.state.memberships, 'team', team.id)) {
    const person = rowOf(moment.state.persons, membership.person)
    if (person !== undefined && counts(moment, membership, person))
      found.set(person.id, { person, lead: membership.lead && person.kind === 'member' })
  }
  if (team.joining !== 'everyone') return [...found.values()]
  for (const person of membersOf(moment))
    if (!found.has(person.id)) found.set(person.id, { person, lead: false })
  return [...found.values()]
}

const membersOf = (moment: Moment): Person[] =>
  [...peopleOf(moment)].filter(person => person.kind === 'member' && person.status === 'active')

/** Everyone who is in the workspace or invited to it. */
export function* peopleOf(moment: Moment): Generator<Person> {
  for (const person of eachRow(moment.state.persons)) if (person.status !== 'removed') yield person
}
