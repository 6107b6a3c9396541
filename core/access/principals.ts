import { none, read } from '../base/vector.ts'
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
import { type EvaluationContext, welcomesGuests } from './evaluation-context.ts'

/** The people whom a principal matches, active or not, each once; until `visit` answers that it has seen enough. */
export function somePerson(
  evaluation: EvaluationContext,
  principal: number,
  visit: (person: number) => boolean,
): boolean {
  const kind = principal & 3
  if (kind === principalKind.person) return visit(principal >> 2)
  if (kind === principalKind.all) return somePersonOfKind(evaluation, principal, visit)
  const team = principal >> 2
  const isForAll = kind === principalKind.team && evaluation.index.forAll.includes(team)
  if (!isForAll) return somePersonInTeam(evaluation, principal, visit)
  return (
    somePersonOfKind(evaluation, everyone, visit) ||
    somePersonInTeam(evaluation, principal, person => isGuestIn(evaluation, person) && visit(person))
  )
}

export const isGuestIn = ({ index }: EvaluationContext, person: number): boolean =>
  read(index.people, person * inPerson.width + inPerson.kind) === kinds.guest

function somePersonOfKind(
  evaluation: EvaluationContext,
  principal: number,
  visit: (person: number) => boolean,
): boolean {
  const { persons } = evaluation.index
  for (let person = 0; person < persons.length; person += 1) {
    const isMeant = principal === anyone || isGuestIn(evaluation, person) === (principal !== everyone)
    if (isMeant && visit(person)) return true
  }
  return false
}

/** By memberships that count now; of leads, members only. */
function somePersonInTeam(
  evaluation: EvaluationContext,
  principal: number,
  visit: (person: number) => boolean,
): boolean {
  const { groups, memberships } = evaluation.index
  const team = principal >> 2
  const isLeads = (principal & 3) === principalKind.leads
  let row = read(groups, team * inGroup.width + inGroup.first)
  for (; row !== none; row = read(memberships, row * inMembership.width + inMembership.nextOfTeam)) {
    const base = row * inMembership.width
    const flags = read(memberships, base + inMembership.flags)
    const person = read(memberships, base + inMembership.person)
    const isGuest = isGuestIn(evaluation, person)
    if (isLeads ? isGuest || (flags & flag.lead) === 0 : isGuest && !welcomesGuests(evaluation.index, team))
      continue
    const times = { flags, vector: memberships, address: base + inMembership.times }
    if (isWithin(times, evaluation.time) && visit(person)) return true
  }
  return false
}
