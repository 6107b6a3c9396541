import { rowOf, rowsBy } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import { type RequestFor, requestKey } from '../../people/request.ts'
import { gone } from '../../state/naming.ts'
import { type EditOf, type EditRule, isTaken } from '../context.ts'
import { unknownRequest } from '../requests/rule.ts'
import { lacksDeciding, ruleFor } from '../requests/rules.ts'

/** Asks for something. Asked again, an earlier answer makes way. */
export const makeRequest: EditRule<EditOf<'request.make'>> = {
  kind: 'request.make',
  lacks: (context, { wants }) => ruleFor(wants).lacksAsking(context, wants),
  apply: ({ now, author }, { request: id, wants, reason }) => {
    const { state, at } = now
    const rule = ruleFor(wants)
    const pointless = rule.isPointless(now, author, wants)
    if (pointless !== undefined) return refused(pointless)
    const after: RequestFor = { id, person: author, wants, at, reason, declined: null }
    const key = requestKey(after)
    const earlier = rowsBy(state.requests, 'person', author).filter(each => requestKey(each) === key)
    if (earlier.some(each => rule.waits(now, each)) || isTaken(state, 'requests', id))
      return refused({ code: 'already-there', what: rule.asked })
    return ok([
      ...earlier.map(each => gone('requests', each)),
      { table: 'requests', id, before: null, after },
    ])
  },
}

export const withdrawRequest: EditRule<EditOf<'request.withdraw'>> = {
  kind: 'request.withdraw',
  lacks: ({ before, author }, { request }) =>
    rowOf(before.state.requests, request)?.person === author ? undefined : unknownRequest,
  apply: ({ now }, { request }) => {
    const before = rowOf(now.state.requests, request)
    return before === undefined ? refused(unknownRequest) : ok([gone('requests', before)])
  },
}

/** Gives what was asked for. */
export const acceptRequest: EditRule<EditOf<'request.accept'>> = {
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

export const declineRequest: EditRule<EditOf<'request.decline'>> = {
  kind: 'request.decline',
  lacks: (context, { request }) => lacksDeciding(context, request),
  apply: ({ now, author }, { request: id, comment }) => {
    const before = rowOf(now.state.requests, id)
    if (before === undefined || !ruleFor(before.wants).isOpen(before, now.at)) return refused(unknownRequest)
    const after: RequestFor = { ...before, declined: { by: author, at: now.at, comment } }
    return ok([{ table: 'requests', id, before, after }])
  },
}
