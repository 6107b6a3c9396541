import { none, read } from '../base/column.ts'
import {
  anyone,
  everyone,
  flag,
  inGroup,
  inMembership,
  inPerson,
  isWithin,
  kinds,
  principalKind,
} from '../index/layout.ts'
import { type Sight, welcomesGuests } from './sight.ts'

/** The people whom a principal matches, active or not, each once; until `visit` answers that it has seen enough. */
export function somePerson(sight: Sight, principal: number, visit: (person: number) => boolean): boolean {
  const kind = principal & 3
  if (kind === principalKind.person) return visit(principal >> 2)
  if (kind === principalKind.all) return somePersonOfKind(sight, principal, visit)
  const team = principal >> 2
  const isForAll = kind === principalKind.team && sight.index.forAll.includes(team)
  if (!isForAll) return somePersonInTeam(sight, principal, visit)
  return (
    somePersonOfKind(sight, everyone, visit) ||
    somePersonInTeam(sight, principal, person => isGuestIn(sight, person) && visit(person))
  )
}

export const isGuestIn = ({ index }: Sight, person: number): boolean =>
  read(index.people, person * inPerson.width + inPerson.kind) === kinds.guest

function somePersonOfKind(sight: Sight, principal: number, visit: (person: number) => boolean): boolean {
  const { persons } = sight.index
  for (let person = 0; person < persons.length; person += 1) {
    const isMeant = principal === anyone || isGuestIn(sight, person) === (principal !== everyone)
    if (isMeant && visit(person)) return true
  }
  return false
}

/** By memberships that count now; of leads, members only. */
function somePersonInTeam(sight: Sight, principal: number, visit: (person: number) => boolean): boolean {
  const { groups, memberships } = sight.index
  const team = principal >> 2
  const isLeads = (principal & 3) === principalKind.leads
  let row = read(groups, team * inGroup.width + inGroup.first)
  for (; row !== none; row = read(memberships, row * inMembership.width + inMembership.nextOfTeam)) {
    const base = row * inMembership.width
    const flags = read(memberships, base + inMembership.flags)
    const person = read(memberships, base + inMembership.person)
    const isGuest = isGuestIn(sight, person)
    if (isLeads ? isGuest || (flags & flag.lead) === 0 : isGuest && !welcomesGuests(sight.index, team))
      continue
    const times = { flags, column: memberships, address: base + inMembership.times }
    if (isWithin(times, sight.time) && visit(person)) return true
  }
  return false
}
