import { rowOf } from '../../base/collection.ts'
import type { RequestId } from '../../base/ids.ts'
import type { RequestFor, Wanted, WantedOf } from '../../people/request.ts'
import type { Context } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { accessRule } from './for-access.ts'
import { roleRule } from './for-role.ts'
import { unknownRequest, type WantRule } from './rule.ts'
import { teamRule } from './to-join.ts'

const rules: { readonly [K in Wanted['of']]: WantRule<WantedOf<K>> } = {
  team: teamRule,
  role: roleRule,
  privilege: roleRule,
  access: accessRule,
}

export const ruleFor = <W extends Wanted>(wants: W): WantRule<W> => rules[wants.of] as unknown as WantRule<W>

/** A request that one may not decide is refused like one that is not there. */
export function lacksDeciding(context: Context, id: RequestId): Refusal | undefined {
  const request = requestIn(context, id)
  return request === undefined ? unknownRequest : ruleFor(request.wants).lacksDeciding(context, request)
}

const requestIn = ({ before, now }: Context, id: RequestId): RequestFor | undefined =>
  rowOf(before.state.requests, id) ?? rowOf(now.state.requests, id)
