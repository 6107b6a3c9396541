import { rowOf, rowsBy } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import { type RequestFor, requestKey, type Wanted } from '../../people/request.ts'
import { gone } from '../../state/naming.ts'
import { type EditRule, isTaken } from '../context.ts'
import { type RequestAnswer, unknownRequest } from '../requests/rule.ts'
import { lacksDeciding, ruleFor } from '../requests/rules.ts'
import type { RequestId } from '../../base/ids.ts'

export interface MakeRequest {
  readonly kind: 'request.make'
  readonly request: RequestId
  readonly wants: Wanted
  readonly reason: string
}

/** Asks for something. Asked again, an earlier answer makes way. */
export const makeRequest: EditRule<MakeRequest> = {
  kind: 'request.make',
  lacks: (context, { wants }) => ruleFor(wants).lacksAsking(context, wants),
  apply: ({ now, author }, { request: id, wants, reason }) => {
    const { state, at } = now
    const rule = ruleFor(wants)
    const pointless = rule.whyPointless(now, author, wants)
    if (pointless !== undefined) return refused(pointless)
    const after: RequestFor = { id, person: author, wants, at, reason, declined: null }
    const key = requestKey(after)
    const earlier = rowsBy(state.requests, 'person', author).filter(each => requestKey(each) === key)
    if (earlier.some(each => rule.waits(now, each)) || isTaken(state, 'requests', id))
      return refused({ code: 'already-there', what: rule.alreadyAsked })
    return ok([
      ...earlier.map(each => gone('requests', each)),
      { table: 'requests', id, before: null, after },
    ])
  },
}

export interface WithdrawRequest {
  readonly kind: 'request.withdraw'
  readonly request: RequestId
}

export const withdrawRequest: EditRule<WithdrawRequest> = {
  kind: 'request.withdraw',
  lacks: ({ before, author }, { request }) =>
    rowOf(before.state.requests, request)?.person === author ? undefined : unknownRequest,
  apply: ({ now }, { request }) => {
    const before = rowOf(now.state.requests, request)
    return before === undefined ? refused(unknownRequest) : ok([gone('requests', before)])
  },
}

export interface AcceptRequest {
  readonly kind: 'request.accept'
  readonly request: RequestId
  readonly gives: RequestAnswer
  /** What whoever asked is told besides. */
  readonly comment: string
}

/** Gives what was asked for. */
export const acceptRequest: EditRule<AcceptRequest> = {
  kind: 'request.accept',
  lacks: (context, { request: id, gives }) => {
    const request = rowOf(context.before.state.requests, id)
    const lacks = lacksDeciding(context, id)
    if (lacks !== undefined || request === undefined) return lacks
    return ruleFor(request.wants).lacksGiving(context, request, gives)
  },
  apply: (context, { request, gives }) => {
    const { state, at } = context.now
    const before = rowOf(state.requests, request)
    if (before === undefined || !ruleFor(before.wants).isOpen(before, at)) return refused(unknownRequest)
    return ruleFor(before.wants).give(context, before, gives)
  },
}

export interface DeclineRequest {
  readonly kind: 'request.decline'
  readonly request: RequestId
  readonly comment: string
}

export const declineRequest: EditRule<DeclineRequest> = {
  kind: 'request.decline',
  lacks: (context, { request }) => lacksDeciding(context, request),
  apply: ({ now, author }, { request: id, comment }) => {
    const before = rowOf(now.state.requests, id)
    if (before === undefined || !ruleFor(before.wants).isOpen(before, now.at)) return refused(unknownRequest)
    const after: RequestFor = { ...before, declined: { by: author, at: now.at, comment } }
    return ok([{ table: 'requests', id, before, after }])
  },
}
