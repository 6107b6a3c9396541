import { rowOf, rowsBy } from '../../base/collection.ts'
import type { MembershipId, PersonId, TeamId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import type { Membership } from '../../people/person.ts'
import type { RecordChange, State } from '../../state/state.ts'
import {
  type Context,
  type EditOf,
  type EditRule,
  isTaken,
  knowsTeam,
  lacksFilling,
  lacksTeam,
  wrongSpan,
} from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { teamRequestOf } from '../requests/of.ts'
import { gone } from '../../state/naming.ts'
import type { Instant } from '../../base/instant.ts'

export interface AddMember {
  readonly kind: 'member.add'
  readonly membership: MembershipId
  readonly team: TeamId
  readonly person: PersonId
  readonly lead: boolean
  readonly from: Instant | null
  readonly until: Instant | null
}

/** Puts a person into a team. Members join open teams by themselves. */
export const addMember: EditRule<AddMember> = {
  kind: 'member.add',
  lacks: (context, edit) => (isJoining(context, edit) ? undefined : lacksFilling(context, edit.team)),
  apply: (context, edit) => {
    const { state, at } = context.now
    const wrong = wrongSpan(context, edit.from, edit.until)
    if (wrong !== undefined) return refused(wrong)
    const person = rowOf(state.persons, edit.person)
    if (person === undefined || person.status === 'removed')
      return refused({ code: 'unknown', what: 'person' })
    if (
      membershipOf(state, edit.team, edit.person) !== undefined ||
      isTaken(state, 'memberships', edit.membership)
    )
      return refused({ code: 'already-there', what: 'membership' })
    const { membership: id, team, lead, from, until } = edit
    const after: Membership = { id, team, person: person.id, lead, from, until, since: at }
    return ok([{ table: 'memberships', id, before: null, after }, ...answered(state, team, person.id)])
  },
}

/** Being let in answers what one asked for. */
function answered(state: State, team: TeamId, person: PersonId): RecordChange[] {
  const request = teamRequestOf(state, team, person)
  return request === undefined ? [] : [gone('requests', request)]
}

export interface ChangeMember {
  readonly kind: 'member.change'
  readonly team: TeamId
  readonly person: PersonId
  readonly lead?: boolean | undefined
  readonly until?: Instant | null | undefined
}

/** Who leads is named here also where a directory keeps who is in; ends are the directory's. */
export const changeMember: EditRule<ChangeMember> = {
  kind: 'member.change',
  lacks: (context, edit) =>
    edit.until === undefined ? lacksTeam(context, edit.team) : lacksFilling(context, edit.team),
  apply: (context, edit) => {
    const before = membershipOf(context.now.state, edit.team, edit.person)
    if (before === undefined) return refused({ code: 'unknown', what: 'person' })
    const until = edit.until === undefined ? before.until : edit.until
    const wrong = edit.until === undefined ? undefined : wrongSpan(context, before.from, until)
    if (wrong !== undefined) return refused(wrong)
    const after: Membership = { ...before, lead: edit.lead ?? before.lead, until }
    return ok([{ table: 'memberships', id: before.id, before, after }])
  },
}

export interface RemoveMember {
  readonly kind: 'member.remove'
  readonly team: TeamId
  readonly person: PersonId
}

/** Leaving a team oneself needs nothing. */
export const removeMember: EditRule<RemoveMember> = {
  kind: 'member.remove',
  lacks: (context, edit) => lacksTaking(context, edit),
  apply: (context, edit) => {
    const before = membershipOf(context.now.state, edit.team, edit.person)
    if (before === undefined) return refused({ code: 'unknown', what: 'person' })
    return ok([{ table: 'memberships', id: before.id, before, after: null }])
  },
}

export function lacksTaking(
  context: Context,
  { person, team }: Pick<Membership, 'person' | 'team'>,
): Refusal | undefined {
  const isKept = rowOf(context.before.state.teams, team)?.keptByDirectory === true
  return person === context.author && !isKept ? undefined : lacksFilling(context, team)
}

/** Whether the author joins an open team by their own act: the one raise of oneself that is allowed. */
export function isJoining(context: Context, edit: EditOf<'member.add'>): boolean {
  const team = rowOf(context.before.state.teams, edit.team)
  const isMember = rowOf(context.before.state.persons, context.author)?.kind === 'member'
  return (
    edit.person === context.author &&
    !edit.lead &&
    isMember &&
    team?.joining === 'open' &&
    !team.keptByDirectory &&
    knowsTeam(context.before, context.author, edit.team)
  )
}

export const membershipOf = (state: State, team: TeamId, person: PersonId): Membership | undefined =>
  rowsBy(state.memberships, 'person', person).find(each => each.team === team)
