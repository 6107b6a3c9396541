import { mayUse } from '../../access/powers.ts'
import { isActive, peopleIn, peopleOf } from '../../access/subject.ts'
import { rowOf } from '../../base/collection.ts'
import type { PersonId } from '../../base/ids.ts'
import { refused } from '../../base/result.ts'
import type { TeamRequest, WantedOf } from '../../people/request.ts'
import type { Snapshot } from '../../state/state.ts'
import { knowsTeam, lacksFilling } from '../context.ts'
import { addMember, membershipOf } from '../edits/member.ts'
import { unknownRequest, type WantRule } from './rule.ts'

/** A member asks to be let into a team that one joins by request; whoever decides who is in it answers. */
export const teamRule: WantRule<WantedOf<'team'>> = {
  lacksAsking: ({ before, author }, { team }) => {
    if (!knowsTeam(before, author, team)) return { code: 'unknown', what: 'team' }
    const isMember = rowOf(before.state.persons, author)?.kind === 'member'
    const row = rowOf(before.state.teams, team)
    return isMember && row?.joining === 'request' && !row.keptByDirectory && !row.archived
      ? undefined
      : { code: 'not-by-request' }
  },
  whyPointless: ({ state }, person, { team }) =>
    membershipOf(state, team, person) === undefined
      ? undefined
      : { code: 'already-there', what: 'membership' },
  isOpen: request => request.declined === null,
  waits: (_snapshot, request) => request.declined === null,
  alreadyAsked: 'request',
  lacksDeciding: (context, { wants }) => {
    const lacks = lacksFilling(context, wants.team)
    return lacks?.code === 'lead-missing' || lacks?.code === 'unknown' ? unknownRequest : lacks
  },
  lacksGiving: () => undefined,
  give: (context, { person, wants }, given) =>
    given.of === 'team'
      ? addMember.apply(context, {
          kind: 'member.add',
          membership: given.membership,
          team: wants.team,
          person,
          lead: false,
          from: null,
          until: null,
        })
      : refused({ code: 'not-asked-for' }),
}

/** The leads of the team; where it has none, whoever manages any team. */
export function decidersOnTeam(snapshot: Snapshot, { wants }: TeamRequest): PersonId[] {
  const team = rowOf(snapshot.state.teams, wants.team)
  if (team === undefined) return []
  const leads = peopleIn(snapshot, team).filter(each => each.lead && isActive(snapshot, each.person))
  if (leads.length > 0) return leads.map(each => each.person.id)
  return [...peopleOf(snapshot)]
    .map(each => each.id)
    .filter(each => mayUse(snapshot, each, 'manage any team'))
}
