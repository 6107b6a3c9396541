import { rowOf } from '../../base/collection.ts'
import type { RequestId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import type { JoinRequest } from '../../people/person.ts'
import { type Context, type EditOf, type EditRule, isTaken, knowsTeam, lacksFilling } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { gone } from '../../state/naming.ts'
import { addMember, membershipOf, requestOf } from './member.ts'

/** A member asks to be let into a team that one joins by request. Asked again, an earlier answer makes way. */
export const makeRequest: EditRule<EditOf<'request.make'>> = {
  kind: 'request.make',
  lacks: ({ before, author }, { team }) => {
    if (!knowsTeam(before, author, team)) return { code: 'unknown', what: 'team' }
    const isMember = rowOf(before.state.persons, author)?.kind === 'member'
    const row = rowOf(before.state.teams, team)
    return isMember && row?.joining === 'request' && !row.keptByDirectory && !row.archived
      ? undefined
      : { code: 'not-by-request' }
  },
  apply: ({ now, author }, { request: id, team, word }) => {
    const { state, at } = now
    const earlier = requestOf(state, team, author)
    if (membershipOf(state, team, author) !== undefined)
      return refused({ code: 'already-there', what: 'membership' })
    if (earlier?.declined === null || isTaken(state, 'requests', id))
      return refused({ code: 'already-there', what: 'request' })
    const after: JoinRequest = { id, team, person: author, at, word, declined: null }
    return ok([
      ...(earlier === undefined ? [] : [gone('requests', earlier)]),
      { table: 'requests', id, before: null, after },
    ])
  },
}

export const withdrawRequest: EditRule<EditOf<'request.withdraw'>> = {
  kind: 'request.withdraw',
  lacks: (context, { request }) =>
    rowOf(context.before.state.requests, request)?.person === context.author
      ? undefined
      : { code: 'unknown', what: 'request' },
  apply: ({ now }, { request }) => {
    const before = rowOf(now.state.requests, request)
    return before === undefined
      ? refused({ code: 'unknown', what: 'request' })
      : ok([gone('requests', before)])
  },
}

/** By whoever decides who is in the team. */
export const answerRequest: EditRule<EditOf<'request.answer'>> = {
  kind: 'request.answer',
  lacks: (context, { request }) => lacksAnswering(context, request),
  apply: (context, { request, membership, accepted, word }) => {
    const { now, author } = context
    const before = rowOf(now.state.requests, request)
    if (before?.declined !== null) return refused({ code: 'unknown', what: 'request' })
    const { team, person } = before
    if (accepted)
      return addMember.apply(context, {
        kind: 'member.add',
        membership,
        team,
        person,
        lead: false,
        from: null,
        until: null,
      })
    const after: JoinRequest = { ...before, declined: { by: author, at: now.at, word } }
    return ok([{ table: 'requests', id: request, before, after }])
  },
}

/** A request that one may not answer is refused like one that is not there. */
export function lacksAnswering(context: Context, id: RequestId): Refusal | undefined {
  const team = (rowOf(context.before.state.requests, id) ?? rowOf(context.now.state.requests, id))?.team
  const lacks = team === undefined ? undefined : lacksFilling(context, team)
  return team === undefined || lacks?.code === 'lead-missing' || lacks?.code === 'unknown'
    ? { code: 'unknown', what: 'request' }
    : lacks
}
