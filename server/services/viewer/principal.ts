import type { PrincipalName } from '#contract/views/names.ts'
import { peopleIn, peopleOf } from '#core/access/subject.ts'
import { rowOf } from '#core/base/collection.ts'
import type { PersonId, TeamId } from '#core/base/ids.ts'
import { partsOf, type Principal } from '#core/rules/principal.ts'
import type { Snapshot } from '#core/state/state.ts'
import { type Asker, nameOf } from './asker.ts'

/** Names are given without regard to whether the asker knows them elsewhere: here they may. */
export function principalName({ snapshot }: Asker, principal: Principal): PrincipalName {
  const parts = partsOf(principal)
  switch (parts.kind) {
    case 'person':
      return personName(snapshot, parts.person)
    case 'team':
    case 'leads':
      return teamName(snapshot, parts.team, parts.kind)
    case 'guests':
    case 'anyone': {
      const people = [...peopleOf(snapshot)].filter(each => each.status === 'active')
      const matching = parts.kind === 'anyone' ? people : people.filter(each => each.kind === 'guest')
      const name = parts.kind === 'anyone' ? 'Members and guests' : 'All guests'
      return { principal, name, people: matching.length, kind: 'everyone', status: null }
    }
    case 'everyone': {
      const members = [...peopleOf(snapshot)].filter(
        each => each.kind === 'member' && each.status === 'active',
      )
      return { principal, name: 'All members', people: members.length, kind: 'everyone', status: null }
    }
  }
}

function personName(snapshot: Snapshot, id: PersonId): PrincipalName {
  const person = rowOf(snapshot.state.persons, id)
  const name = nameOf(snapshot, id)
  if (person === undefined)
    return { principal: `person:${id}`, name, people: 0, kind: 'member', status: 'removed' }
  return { principal: `person:${id}`, name, people: 1, kind: person.kind, status: person.status }
}

function teamName(snapshot: Snapshot, id: TeamId, kind: 'team' | 'leads'): PrincipalName {
  const team = rowOf(snapshot.state.teams, id)
  const people =
    team === undefined ? [] : peopleIn(snapshot, team).filter(each => each.lead || kind === 'team')
  const name = team?.name ?? 'a deleted team'
  return {
    principal: `${kind}:${id}`,
    name: kind === 'leads' ? `Leads of ${name}` : name,
    people: people.length,
    kind,
    status: null,
  }
}
