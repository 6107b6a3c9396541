import { rowOf, rowsBy } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import { check } from '../../access/evaluate.ts'
import { placeOf } from '../../access/place.ts'
import { mayUse } from '../../access/powers.ts'
import { subjectOf } from '../../access/subject.ts'
import { everyAction, has } from '../../levels/action.ts'
import type { Grant, Limit } from '../../rules/access-entry.ts'
import { personPrincipal } from '../../rules/principal.ts'
import type { RecordChange } from '../../state/state.ts'
import { type Context, type EditOf, type EditRule, isTaken, lacksPrivilege } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { gone } from '../../state/naming.ts'
import type { GrantId, LimitId, NodeId, PersonId } from '../../base/ids.ts'

/** Makes somebody Steward of a place where no active person has share, and lifts what stands against it. */
export interface RecoverAccess {
  readonly kind: 'access.recover'
  readonly node: NodeId
  readonly taker: PersonId
  readonly grant: GrantId
  readonly limits: readonly LimitId[]
}

/**
 * Takes Steward at a place where no active person has share, which is a guard's to find. It is the one raise of
 * oneself beside joining an open team; all Owners are told of it. It never reaches into a private folder.
 */
export const recoverAccess: EditRule<RecoverAccess> = {
  kind: 'access.recover',
  lacks: (context, edit) =>
    lacksPrivilege(context, 'recover access') ??
    (speaksOf(context, edit) ? undefined : { code: 'unknown', what: 'place' }),
  apply: (context, edit) => {
    const { now, author } = context
    const wrong = notRecoverable(context, edit)
    if (wrong !== undefined) return refused(wrong)
    if (isTaken(now.state, 'grants', edit.grant)) return refused({ code: 'already-there', what: 'id' })
    const principal = personPrincipal(edit.taker)
    const grant: Grant = {
      id: edit.grant,
      node: edit.node,
      principal,
      gives: everyAction,
      from: null,
      until: null,
      by: author,
      at: now.at,
      copiedFrom: null,
    }
    const lifted = edit.limits.map(id => rowOf(now.state.limits, id))
    if (!lifted.every(limit => limit !== undefined && standsAgainst(context, edit, limit)))
      return refused({ code: 'unknown', what: 'limit' })
    if (edit.taker === author && lifted.some(limit => limit?.principal === principal))
      return refused({ code: 'own-limit' })
    return ok([
      ...lifted.flatMap((limit): RecordChange[] => (limit === undefined ? [] : [gone('limits', limit)])),
      { table: 'grants', id: grant.id, before: null, after: grant },
    ])
  },
}

/** Places that the author sees, or outlines. */
const speaksOf = ({ before, author }: Context, { node }: EditOf<'access.recover'>): boolean =>
  rowOf(before.state.nodes, node) !== undefined &&
  (has(check(before, author, node), 'see') || mayUse(before, author, 'see the outline'))

function notRecoverable({ now }: Context, { node, taker }: EditOf<'access.recover'>): Refusal | undefined {
  const place = placeOf(now, node)
  const subject = subjectOf(now, taker)
  if (place === undefined || place.node.parent === null || place.binnedAt !== undefined)
    return { code: 'unknown', what: 'place' }
  if (place.path.some(each => each.home?.of === 'person')) return { code: 'private' }
  if (subject?.isActive !== true || subject.isGuest) return { code: 'unknown', what: 'person' }
  return undefined
}

/** Only limits that hold the taker back there are lifted with it. */
function standsAgainst({ now }: Context, { node, taker }: EditOf<'access.recover'>, limit: Limit): boolean {
  const place = placeOf(now, node)
  const isOnPath = place?.path.some(({ id }) => rowsBy(now.state.limits, 'node', id).includes(limit)) === true
  return isOnPath && subjectOf(now, taker)?.principals.has(limit.principal) === true
}
