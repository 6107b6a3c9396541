import { isSame } from '../base/same.ts'
import type { PersonId, TeamId } from '../base/ids.ts'
import { type Context, lacksFilling, lacksTeam } from '../changes/context.ts'
import { lacksTaking, membershipOf } from '../changes/edits/member.ts'
import type { Refusal } from '../changes/refusal.ts'
import { placesNaming } from '../changes/affected-scope.ts'
import type { Membership } from '../people/person.ts'
import { leadsPrincipal, teamPrincipal } from '../rules/principal.ts'
import { endOf, nearingOf, startOf } from '../state/dates.ts'
import { membershipWords } from '../words/people-events.ts'
import { type RecordKind, spanFields } from './kind.ts'
import { id } from './references.ts'

export const memberships: RecordKind<'memberships'> = {
  fields: { id: 'text', team: 'text', person: 'text', lead: 'boolean', since: 'number', ...spanFields },
  indexes: { person: row => row.person, team: row => row.team },
  references: [
    id('team', 'teams', { whenGone: 'goes along', index: 'team' }),
    id('person', 'persons', { whenGone: 'goes along', index: 'person' }),
  ],
  dates: { starts: startOf, ends: endOf, nearings: row => nearingOf(row, row.since) },
  rights: lacksMembership,
  about: ({ before, after }) => {
    const { team, person } = (after ?? before) as Membership
    return { category: 'teams', team, person }
  },
  isConsequence: ({ before, after }, { leavers, goneTeams }) =>
    after === null && (leavers.has(before?.person as PersonId) || goneTeams.has(before?.team as TeamId)),
  hasItsPlace: (state, { id, team, person }) => membershipOf(state, team, person)?.id === id,
  people: ({ before, after }) => [(before ?? after)?.person as PersonId],
  places: (state, { before, after }) => {
    const { team } = (before ?? after) as Membership
    return placesNaming(state, [teamPrincipal(team), leadsPrincipal(team)])
  },
  words: membershipWords,
}

/** Leads are named in the workspace, also where a directory keeps who is in. */
function lacksMembership(
  context: Context,
  before: Membership | null,
  after: Membership | null,
): Refusal | undefined {
  if (after === null) return before === null ? undefined : lacksTaking(context, before)
  const isNaming = before !== null && isSame(before, { ...after, lead: before.lead })
  return isNaming ? lacksTeam(context, after.team) : lacksFilling(context, after.team)
}
