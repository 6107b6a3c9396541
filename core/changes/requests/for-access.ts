import { actionsAt, check } from '../../access/evaluate.ts'
import { placeOf } from '../../access/place.ts'
import { peopleOf, subjectOf } from '../../access/subject.ts'
import { rowsBy } from '../../base/collection.ts'
import type { PersonId } from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'
import { refused } from '../../base/result.ts'
import { has, holds } from '../../levels/action.ts'
import { type AccessRequest, accessRequestTime, isForAccess, type WantedOf } from '../../people/request.ts'
import { personPrincipal } from '../../rules/principal.ts'
import type { Snapshot } from '../../state/state.ts'
import { type EditOf, lacksActionInArchive } from '../context.ts'
import { addGrant } from '../edits/grant.ts'
import { type RequestAnswer, unknownRequest, type WantRule } from './rule.ts'

/**
 * Asks for access by the address of a place. Nothing here depends on whether a place that the author does not see
 * is there: the answer, and what is kept, are the same. Whoever gives and takes access there answers; what is given needs
 * what giving it needs, and may be other than asked.
 */
export const accessRule: WantRule<WantedOf<'access'>> = {
  lacksAsking: () => undefined,
  whyPointless: (snapshot, person, { node, actions }) => {
    if (holds(check(snapshot, person, node), actions)) return { code: 'already-there', what: 'access' }
    const requests = rowsBy(snapshot.state.requests, 'person', person).filter(isForAccess)
    return requests.length >= askedAtMost ? { code: 'asked-too-much' } : undefined
  },
  isOpen,
  waits,
  alreadyAsked: 'access request',
  lacksDeciding: (context, { person, wants }) =>
    person === context.author || lacksActionInArchive(context, wants.node, 'share') !== undefined
      ? unknownRequest
      : undefined,
  lacksGiving: (context, request, given) =>
    given.of === 'access' ? addGrant.lacks(context, grantFor(request, given)) : undefined,
  give: (context, request, given) =>
    given.of === 'access'
      ? addGrant.apply(context, grantFor(request, given))
      : refused({ code: 'not-asked-for' }),
}

/** Whoever asks for addresses at random is stopped. */
const askedAtMost = 100

const grantFor = (
  { person, wants }: AccessRequest,
  { grant, gives, until }: Extract<RequestAnswer, { readonly of: 'access' }>,
): EditOf<'grant.add'> => ({
  kind: 'grant.add',
  grant,
  node: wants.node,
  principal: personPrincipal(person),
  gives,
  from: null,
  until,
})

/** Neither declined nor over by its age. */
export function isOpen({ declined, at }: AccessRequest, now: Instant): boolean {
  return declined === null && at + accessRequestTime > now
}

/**
 * Whether whoever asks is to take it that their request waits still. At a place that they do not see they are not told
 * that it was declined: that would tell that there is such a place.
 */
export function waits(snapshot: Snapshot, request: AccessRequest): boolean {
  const isVisible = has(check(snapshot, request.person, request.wants.node), 'see')
  return isOpen(isVisible ? request : { ...request, declined: null }, snapshot.at)
}

/** Whether somebody has by now what they asked for. */
export const isGiven = (snapshot: Snapshot, { person, wants }: AccessRequest): boolean =>
  holds(check(snapshot, person, wants.node), wants.actions)

/**
 * Who may decide a request: in the first ring those who are given share nearest to the place, in the second all
 * others who have it there. Nobody for a place that is not there. Costs what the people of the workspace cost.
 */
export function decidersOnAccess(snapshot: Snapshot, { wants, person: asker }: AccessRequest): PersonId[][] {
  const place = placeOf(snapshot, wants.node)
  if (place === undefined || place.node.kind === 'root') return [[], []]
  const giving = place.grants.filter(each => has(each.actions, 'share'))
  const nearest = place.path.find(({ id }) => giving.some(each => each.grant.node === id))?.id
  const near: PersonId[] = []
  const others: PersonId[] = []
  for (const { id } of peopleOf(snapshot)) {
    const subject = id === asker ? undefined : subjectOf(snapshot, id)
    if (subject === undefined || !has(actionsAt(snapshot, subject, place), 'share')) continue
    const isNear = giving.some(
      ({ grant }) => grant.node === nearest && subject.principals.has(grant.principal),
    )
    ;(isNear ? near : others).push(id)
  }
  return [near, others]
}
