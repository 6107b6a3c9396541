import { rowOf } from '../../base/collection.ts'
import type { GrantId, NodeId } from '../../base/ids.ts'
import { endsLater, type Instant } from '../../base/instant.ts'
import { ok, refused } from '../../base/result.ts'
import { actionsGiven } from '../../access/place.ts'
import { type ActionSet, beyond, holds } from '../../levels/action.ts'
import type { Gives, Grant } from '../../rules/access-entry.ts'
import { partsOf, personPrincipal, type Principal } from '../../rules/principal.ts'
import type { RecordChange, State } from '../../state/state.ts'
import {
  asUnknown,
  authorGives,
  type Context,
  type EditRule,
  isTaken,
  lacksSharing,
  unknownPrincipal,
  wrongSpan,
} from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { accessRequestOf } from '../requests/of.ts'
import { gone } from '../../state/naming.ts'

export interface AddGrant {
  readonly kind: 'grant.add'
  readonly grant: GrantId
  readonly node: NodeId
  readonly principal: Principal
  readonly gives: Gives
  readonly from: Instant | null
  readonly until: Instant | null
}

export const addGrant: EditRule<AddGrant> = {
  kind: 'grant.add',
  lacks: (context, edit) =>
    lacksGiving(context, edit.node, edit.gives) ?? unknownPrincipal(context, edit.principal),
  apply: (context, edit) => {
    const wrong = wrongSpan(context, edit.from, edit.until) ?? wrongGift(edit.principal)
    if (wrong !== undefined) return refused(wrong)
    if (isTaken(context.now.state, 'grants', edit.grant))
      return refused({ code: 'already-there', what: 'id' })
    const { grant: id, node, principal, gives, from, until } = edit
    const after: Grant = {
      id,
      node,
      principal,
      gives,
      from,
      until,
      by: context.author,
      at: context.now.at,
      copiedFrom: null,
    }
    return ok([{ table: 'grants', id, before: null, after }, ...answeredBy(context.now.state, after)])
  },
}

/** What somebody who is given something by name has asked for there is answered by it. */
function answeredBy(state: State, { principal, node }: Grant): RecordChange[] {
  const parts = partsOf(principal)
  const request = parts.kind === 'person' ? accessRequestOf(state, node, parts.person) : undefined
  return request === undefined ? [] : [gone('requests', request)]
}

export interface ChangeGrant {
  readonly kind: 'grant.change'
  readonly grant: GrantId
  readonly gives?: Gives | undefined
  readonly until?: Instant | null | undefined
}

/** Raising and lengthening are giving; lowering and shortening are taking. */
export const changeGrant: EditRule<ChangeGrant> = {
  kind: 'grant.change',
  lacks: (context, edit) => {
    const before = rowOf(context.before.state.grants, edit.grant)
    if (before === undefined) return { code: 'unknown', what: 'grant' }
    const { gives = before.gives, until = before.until } = edit
    return asUnknown('grant', lacksGrantChange(context, before, { ...before, gives, until }))
  },
  apply: (context, edit) => {
    const before = rowOf(context.now.state.grants, edit.grant)
    if (before === undefined) return refused({ code: 'unknown', what: 'grant' })
    const until = edit.until === undefined ? before.until : edit.until
    const gives = edit.gives ?? before.gives
    const wrong = edit.until === undefined ? undefined : wrongSpan(context, before.from, until)
    if (wrong !== undefined) return refused(wrong)
    const after: Grant = { ...before, gives, until, by: context.author, at: context.now.at }
    return ok([{ table: 'grants', id: before.id, before, after }])
  },
}

export interface EndGrant {
  readonly kind: 'grant.end'
  readonly grant: GrantId
}

/** Giving up one's own grant needs nothing. */
export const endGrant: EditRule<EndGrant> = {
  kind: 'grant.end',
  lacks: (context, edit) => {
    const before = rowOf(context.before.state.grants, edit.grant)
    return before === undefined
      ? { code: 'unknown', what: 'grant' }
      : asUnknown('grant', lacksGrantChange(context, before, null))
  },
  apply: (context, edit) => {
    const before = rowOf(context.now.state.grants, edit.grant)
    if (before === undefined) return refused({ code: 'unknown', what: 'grant' })
    return ok([{ table: 'grants', id: before.id, before, after: null }])
  },
}

/** Giving, raising and lengthening are giving; all else is taking, which giving up one's own is not. */
export function lacksGrantChange(
  context: Context,
  before: Grant | null,
  after: Grant | null,
): Refusal | undefined {
  if (after === null)
    return before === null || before.principal === personPrincipal(context.author)
      ? undefined
      : lacksSharing(context, before.node)
  const { state } = context.before
  const isGiving =
    before === null ||
    !holds(actionsGiven(state, before.gives), actionsGiven(state, after.gives)) ||
    endsLater(after.until, before.until)
  return isGiving ? lacksGiving(context, after.node, after.gives) : lacksSharing(context, after.node)
}

/** Giving needs share there, and to have there the whole of what is given. */
function lacksGiving(context: Context, node: NodeId, gives: Gives): Refusal | undefined {
  const missing = lacksSharing(context, node)
  if (missing !== undefined) return missing
  const given: ActionSet = actionsGiven(context.before.state, gives)
  if (given === 0) return { code: 'unknown', what: 'level' }
  const lacks = beyond(given, authorGives(context, node))
  return lacks.length === 0 ? undefined : { code: 'gives-more', node, lacks }
}

/** Groups with guests are for limits. */
const wrongGift = (principal: Principal): Refusal | undefined =>
  principal === 'guests' || principal === 'anyone' ? { code: 'limits-only' } : undefined
