import { rowOf } from '../../base/collection.ts'
import { endsLater, type Instant } from '../../base/instant.ts'
import { ok, refused } from '../../base/result.ts'
import { type ActionSet, beyond, everyAction, has } from '../../levels/action.ts'
import type { Limit } from '../../rules/access-entry.ts'
import { personPrincipal, type Principal } from '../../rules/principal.ts'
import {
  asUnknown,
  authorGives,
  type Context,
  type EditOf,
  type EditRule,
  isTaken,
  lacksSharing,
  unknownPrincipal,
  wrongSpan,
} from '../context.ts'
import type { Refusal } from '../refusal.ts'
import type { LimitId, NodeId } from '../../base/ids.ts'

export interface AddLimit {
  readonly kind: 'limit.add'
  readonly limit: LimitId
  readonly node: NodeId
  readonly principal: Principal
  readonly allows: ActionSet
  readonly sparesStewards: boolean
  readonly from: Instant | null
  readonly until: Instant | null
}

export const addLimit: EditRule<AddLimit> = {
  kind: 'limit.add',
  lacks: (context, edit) => lacksSharing(context, edit.node) ?? unknownPrincipal(context, edit.principal),
  apply: (context, edit) => {
    const wrong = wrongSpan(context, edit.from, edit.until)
    if (wrong !== undefined) return refused(wrong)
    if (isTaken(context.now.state, 'limits', edit.limit))
      return refused({ code: 'already-there', what: 'id' })
    const { limit: id, node, principal, allows, sparesStewards, from, until } = edit
    const span = { from, until }
    const after: Limit = {
      id,
      node,
      principal,
      allows,
      sparesStewards,
      ...span,
      by: context.author,
      at: context.now.at,
    }
    return ok([{ table: 'limits', id, before: null, after }])
  },
}

export interface ChangeLimit {
  readonly kind: 'limit.change'
  readonly limit: LimitId
  readonly allows?: ActionSet | undefined
  readonly sparesStewards?: boolean | undefined
  readonly until?: Instant | null | undefined
}

/** Tightening and lengthening are taking; loosening, shortening and sparing more are giving. */
export const changeLimit: EditRule<ChangeLimit> = {
  kind: 'limit.change',
  lacks: (context, edit) => {
    const before = rowOf(context.before.state.limits, edit.limit)
    return before === undefined
      ? { code: 'unknown', what: 'limit' }
      : asUnknown('limit', lacksLimitChange(context, before, { ...before, ...given(edit) }))
  },
  apply: (context, edit) => {
    const before = rowOf(context.now.state.limits, edit.limit)
    if (before === undefined) return refused({ code: 'unknown', what: 'limit' })
    const wrong = edit.until === undefined ? undefined : wrongSpan(context, before.from, edit.until)
    if (wrong !== undefined) return refused(wrong)
    const after: Limit = { ...before, ...given(edit), by: context.author, at: context.now.at }
    return ok([{ table: 'limits', id: before.id, before, after }])
  },
}

export interface EndLimit {
  readonly kind: 'limit.end'
  readonly limit: LimitId
}

/** Lifting a limit is giving: all that it no longer keeps out. */
export const endLimit: EditRule<EndLimit> = {
  kind: 'limit.end',
  lacks: (context, edit) => {
    const before = rowOf(context.before.state.limits, edit.limit)
    return before === undefined
      ? { code: 'unknown', what: 'limit' }
      : asUnknown('limit', lacksLimitChange(context, before, null))
  },
  apply: (context, edit) => {
    const before = rowOf(context.now.state.limits, edit.limit)
    if (before === undefined) return refused({ code: 'unknown', what: 'limit' })
    return ok([{ table: 'limits', id: before.id, before, after: null }])
  },
}

/** The fields that an edit names. */
function given({ allows, until, sparesStewards }: EditOf<'limit.change'>): Partial<Limit> {
  return {
    ...(allows === undefined ? {} : { allows }),
    ...(until === undefined ? {} : { until }),
    ...(sparesStewards === undefined ? {} : { sparesStewards }),
  }
}

/** Loosening is giving: all that is no longer kept out. A limit on the author is not the author's to loosen. */
export function lacksLimitChange(context: Context, before: Limit, after: Limit | null): Refusal | undefined {
  const missing = lacksSharing(context, before.node)
  if (missing !== undefined) return missing
  const released = releasedBy(before, after)
  if (released.length > 0 && before.principal === personPrincipal(context.author))
    return { code: 'own-limit' }
  const held = authorGives(context, before.node)
  const lacks = released.filter(action => !has(held, action))
  return lacks.length === 0 ? undefined : { code: 'gives-more', node: before.node, lacks }
}

/** The actions that a limit keeps out before and not, or not for as long, after. */
function releasedBy(before: Limit, after: Limit | null) {
  const isWholeLoosening =
    after === null || endsLater(before.until, after.until) || (after.sparesStewards && !before.sparesStewards)
  const still: ActionSet = isWholeLoosening ? everyAction : after.allows
  return beyond(still, before.allows)
}
