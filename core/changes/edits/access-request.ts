import { actionsAt, check } from '../../access/evaluate.ts'
import { placeOf } from '../../access/place.ts'
import { peopleOf, subjectOf } from '../../access/subject.ts'
import { rowOf, rowsBy } from '../../base/collection.ts'
import type { AccessRequestId, PersonId } from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'
import { ok, refused } from '../../base/result.ts'
import { has, holds } from '../../levels/action.ts'
import { type AccessRequest, requestTime } from '../../people/asking.ts'
import { personPrincipal } from '../../rules/principal.ts'
import type { Moment } from '../../state/state.ts'
import { type Context, type EditOf, type EditRule, isTaken, lacksActionInArchive } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { gone } from '../../state/naming.ts'
import { addGrant } from './grant.ts'

/**
 * Asks for access by the address of a place. Nothing here depends on whether a place that the author does not see
 * is there: the answer, and what is kept, are the same.
 */
export const askForAccess: EditRule<EditOf<'access.ask'>> = {
  kind: 'access.ask',
  lacks: () => undefined,
  apply: ({ now, author }, { request: id, node, wants, word }) => {
    const { state, at } = now
    if (holds(check(now, author, node), wants)) return refused({ code: 'already-there', what: 'access' })
    const earlier = rowsBy(state.accessRequests, 'person', author).filter(each => each.node === node)
    if (rowsBy(state.accessRequests, 'person', author).length >= askedAtMost)
      return refused({ code: 'asked-too-much' })
    if (earlier.some(each => waitsFor(now, each)) || isTaken(state, 'accessRequests', id))
      return refused({ code: 'already-there', what: 'access request' })
    const after: AccessRequest = { id, person: author, node, wants, at, word, declined: null }
    return ok([
      ...earlier.map(each => gone('accessRequests', each)),
      { table: 'accessRequests', id, before: null, after },
    ])
  },
}

/** Whoever asks for addresses at random is stopped. */
const askedAtMost = 100

export const takeBackAccessRequest: EditRule<EditOf<'access.unask'>> = {
  kind: 'access.unask',
  lacks: ({ before, author }, { request }) =>
    rowOf(before.state.accessRequests, request)?.person === author
      ? undefined
      : { code: 'unknown', what: 'request' },
  apply: ({ now }, { request }) => {
    const before = rowOf(now.state.accessRequests, request)
    return before === undefined
      ? refused({ code: 'unknown', what: 'request' })
      : ok([gone('accessRequests', before)])
  },
}

/** By whoever gives and takes access there; what is given needs what giving it needs, and may be other than asked. */
export const answerAccessRequest: EditRule<EditOf<'access.answer'>> = {
  kind: 'access.answer',
  lacks: (context, { request, gives, grant }) => {
    const lacks = lacksDecidingAccess(context, request)
    const asked = rowOf(context.before.state.accessRequests, request)
    if (lacks !== undefined || gives === null || asked === undefined) return lacks
    return addGrant.lacks(context, grantFor(asked, gives, grant))
  },
  apply: (context, { request, gives, grant, word }) => {
    const { now, author } = context
    const before = rowOf(now.state.accessRequests, request)
    if (before === undefined || !isOpen(before, now.at)) return refused({ code: 'unknown', what: 'request' })
    if (gives !== null) return addGrant.apply(context, grantFor(before, gives, grant))
    const after: AccessRequest = { ...before, declined: { by: author, at: now.at, word } }
    return ok([{ table: 'accessRequests', id: request, before, after }])
  },
}

type Answer = EditOf<'access.answer'>

const grantFor = (
  { node, person }: AccessRequest,
  { gives, until }: NonNullable<Answer['gives']>,
  grant: Answer['grant'],
): EditOf<'grant.add'> => ({
  kind: 'grant.add',
  grant,
  node,
  principal: personPrincipal(person),
  gives,
  from: null,
  until,
})

/** A request that one may not decide is refused like one that is not there. */
export function lacksDecidingAccess(context: Context, id: AccessRequestId): Refusal | undefined {
  const asked = rowOf(context.before.state.accessRequests, id) ?? rowOf(context.now.state.accessRequests, id)
  const unknown: Refusal = { code: 'unknown', what: 'request' }
  if (asked === undefined || asked.person === context.author) return unknown
  return lacksActionInArchive(context, asked.node, 'share') === undefined ? undefined : unknown
}

/** Neither declined nor over by its age. */
export const isOpen = ({ declined, at }: AccessRequest, now: Instant): boolean =>
  declined === null && at + requestTime > now

/**
 * Whether whoever asks is to take it that their request waits still. At a place that they do not see they are not told
 * that it was declined: that would tell that there is such a place.
 */
export function waitsFor(moment: Moment, request: AccessRequest): boolean {
  const isSeen = has(check(moment, request.person, request.node), 'see')
  return isOpen(isSeen ? request : { ...request, declined: null }, moment.at)
}

/**
 * Who may decide a request: in the first ring those who are given share nearest to the place, in the second all
 * others who have it there. Nobody for a place that is not there. Costs what the people of the workspace cost.
 */
export function decidersOfAccess(moment: Moment, { node, person: asker }: AccessRequest): PersonId[][] {
  const place = placeOf(moment, node)
  if (place === undefined || place.node.kind === 'root') return [[], []]
  const giving = place.grants.filter(each => has(each.actions, 'share'))
  const nearest = place.path.find(({ id }) => giving.some(each => each.grant.node === id))?.id
  const near: PersonId[] = []
  const others: PersonId[] = []
  for (const { id } of peopleOf(moment)) {
    const subject = id === asker ? undefined : subjectOf(moment, id)
    if (subject === undefined || !has(actionsAt(moment, subject, place), 'share')) continue
    const isNear = giving.some(
      ({ grant }) => grant.node === nearest && subject.principals.has(grant.principal),
    )
    ;(isNear ? near : others).push(id)
  }
  return [near, others]
}
