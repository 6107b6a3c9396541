import { none, read, write } from '../base/vector.ts'
import { numbered, numberOf, unnumbered } from '../base/numbering.ts'
import { without } from '../levels/action.ts'
import type { Membership, Person, Team } from '../people/person.ts'
import type { Workspace } from '../rules/workspace.ts'
import { flag, group, inGroup, inMembership, inPerson, kinds, statuses } from './layout.ts'
import { flagsOf, giveRowBack, type Making, takeRow, writeTimes, writing } from './making.ts'

export function setPolicies(making: Making, { guestCeiling, allowsPublishing }: Workspace): void {
  making.index.guestCeiling = without(guestCeiling, 'share')
  making.index.allowsPublishing = allowsPublishing
}

export function putPerson(making: Making, person: Person): void {
  let number = numberOf(making.index.persons, person.id)
  const people = writing(making, 'people')
  if (number === undefined) {
    const [persons, next] = numbered(making.index.persons, person.id)
    making.index.persons = persons
    number = next
    write(people, number * inPerson.width + inPerson.first, none)
  }
  const base = number * inPerson.width
  write(people, base + inPerson.kind, kinds[person.kind])
  write(people, base + inPerson.status, statuses[person.status])
  write(people, base + inPerson.flags, flagsOf(person))
  writeTimes(people, base + inPerson.times, person)
}

/** Whose memberships and grants are gone already. Who looks at all numbers finds nobody there. */
export function dropPerson(making: Making, { id }: Person): void {
  const number = numberOf(making.index.persons, id)
  if (number === undefined) return
  write(writing(making, 'people'), number * inPerson.width + inPerson.status, statuses.removed)
  making.index.persons = unnumbered(making.index.persons, id)
}

export function putTeam(making: Making, team: Team): void {
  let number = numberOf(making.index.teams, team.id)
  const groups = writing(making, 'groups')
  if (number === undefined) {
    const [teams, next] = numbered(making.index.teams, team.id)
    making.index.teams = teams
    number = next
    write(groups, number * inGroup.width + inGroup.first, none)
  }
  const bits =
    (team.archived ? group.archived : 0) |
    (team.welcomesGuests ? group.welcomesGuests : 0) |
    (team.allowsPublishing ? 0 : group.closedToWeb)
  write(groups, number * inGroup.width + inGroup.state, bits)
  holdAll(making, number, team.joining === 'everyone')
}

/** Whose memberships, home and grants are gone already. */
export function dropTeam(making: Making, { id }: Team): void {
  const number = numberOf(making.index.teams, id)
  if (number === undefined) return
  holdAll(making, number, false)
  making.index.teams = unnumbered(making.index.teams, id)
}

function holdAll(making: Making, team: number, isForAll: boolean): void {
  const { forAll } = making.index
  if (forAll.includes(team) === isForAll) return
  const next = isForAll ? [...forAll, team] : forAll.filter(each => each !== team)
  making.index.forAll = next
}

/** Nothing if the person or the team is not there. */
export function addMembership(making: Making, { person, team, lead, from, until }: Membership): void {
  const who = numberOf(making.index.persons, person)
  const into = numberOf(making.index.teams, team)
  if (who === undefined || into === undefined) return
  const row = takeRow(making, 'freeMemberships')
  const memberships = writing(making, 'memberships')
  const people = writing(making, 'people')
  const groups = writing(making, 'groups')
  const base = row * inMembership.width
  const ofPerson = who * inPerson.width + inPerson.first
  const ofTeam = into * inGroup.width + inGroup.first
  write(memberships, base + inMembership.person, who)
  write(memberships, base + inMembership.team, into)
  write(memberships, base + inMembership.nextOfPerson, read(people, ofPerson))
  write(memberships, base + inMembership.nextOfTeam, read(groups, ofTeam))
  write(memberships, base + inMembership.flags, flagsOf({ from, until }) | (lead ? flag.lead : 0))
  writeTimes(memberships, base + inMembership.times, { from, until })
  // The last field is written too, so that the row lies whole within the vector.
  write(memberships, base + inMembership.width - 1, none)
  write(people, ofPerson, row)
  write(groups, ofTeam, row)
}

/** There is at most one for a person and a team. */
export function removeMembership(making: Making, { person, team }: Membership): void {
  const who = numberOf(making.index.persons, person)
  const from = numberOf(making.index.teams, team)
  if (who === undefined || from === undefined) return
  const memberships = writing(making, 'memberships')
  const isIt = (row: number) =>
    read(memberships, row * inMembership.width + inMembership.person) === who &&
    read(memberships, row * inMembership.width + inMembership.team) === from
  const row = unlink(making, {
    isIt,
    list: ['people', who * inPerson.width + inPerson.first],
    next: inMembership.nextOfPerson,
  })
  unlink(making, {
    isIt,
    list: ['groups', from * inGroup.width + inGroup.first],
    next: inMembership.nextOfTeam,
  })
  if (row !== none) giveRowBack(making, 'freeMemberships', row)
}

interface Unlinking {
  readonly isIt: (row: number) => boolean
  /** Where the number of the first one stands. */
  readonly list: readonly ['people' | 'groups', number]
  readonly next: number
}

function unlink(making: Making, { isIt, list, next }: Unlinking): number {
  const memberships = writing(making, 'memberships')
  let to = writing(making, list[0])
  let address = list[1]
  for (let row = read(to, address); row !== none; row = read(to, address)) {
    const after = row * inMembership.width + next
    if (isIt(row)) {
      write(to, address, read(memberships, after))
      return row
    }
    to = memberships
    address = after
  }
  return none
}
