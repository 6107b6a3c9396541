import { rowOf } from '../../base/collection.ts'
import type { NodeId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import { heldBeforeStates } from '../../access/evaluate.ts'
import { placeOf } from '../../access/place.ts'
import { type Action, has } from '../../levels/action.ts'
import { type RecordChange, type State, subtreeOf } from '../../state/state.ts'
import type { ContentNode, Mark } from '../../tree/node.ts'
import { type Context, type EditOf, type EditRule, lacksActionInArchive, lacksEditing } from '../context.ts'
import type { Refusal } from '../refusal.ts'

export interface SetNodeState {
  readonly kind: 'node.state'
  readonly node: NodeId
  readonly archived?: boolean | undefined
  readonly binned?: boolean | undefined
  readonly draft?: boolean | undefined
}

/** Archives, bins, drafts, and takes each back. Bringing back leaves what was on the web withdrawn. */
export const setNodeState: EditRule<SetNodeState> = {
  kind: 'node.state',
  lacks: (context, edit) => {
    const isOther = edit.archived !== undefined || edit.draft !== undefined
    if (edit.binned === false)
      return isOther ? { code: 'unknown', what: 'place' } : lacksInBin(context, edit.node, 'remove')
    const isClosing = edit.archived !== undefined || edit.binned !== undefined
    return (
      (isClosing ? lacksActionInArchive(context, edit.node, 'remove') : undefined) ??
      (edit.draft !== undefined || !isClosing ? lacksEditing(context, edit.node) : undefined)
    )
  },
  apply: (context, edit) => {
    const before = rowOf(context.now.state.nodes, edit.node)
    if (before === undefined) return refused({ code: 'unknown', what: 'place' })
    if (before.home !== null && edit.binned === true) return refused({ code: 'fixed-place', kind: 'home' })
    const after = { ...before, draft: edit.draft ?? before.draft, ...closedBy(context, before, edit) }
    const isClosed = after.archived || after.binned !== null
    const web = isClosed && before.web === 'published' ? null : before.web
    const below = isClosed ? withdrawnBelow(context.now.state, before.id) : []
    return ok([{ table: 'nodes', id: before.id, before, after: { ...after, web } }, ...below])
  },
}

function closedBy(
  context: Context,
  before: ContentNode,
  { archived = before.archived, binned }: EditOf<'node.state'>,
): Pick<ContentNode, 'archived' | 'archivedAt' | 'binned'> {
  const archivedAt = before.archived ? before.archivedAt : context.now.at
  return { archived, archivedAt: archived ? archivedAt : null, binned: binnedBy(context, before, binned) }
}

function binnedBy(
  { author, now: { at } }: Context,
  { binned }: ContentNode,
  isBinned: boolean | undefined,
): Mark | null {
  if (isBinned === undefined) return binned
  return isBinned ? (binned ?? { by: author, at }) : null
}

/** What is published below a place that leaves the web; bringing it back leaves it withdrawn. */
export const withdrawnBelow = (state: State, top: NodeId): RecordChange[] =>
  [...subtreeOf(state, top)]
    .filter(node => node.id !== top && node.web === 'published')
    .map(node => ({ table: 'nodes', id: node.id, before: node, after: { ...node, web: null } }))

/**
 * What lies in the bin is brought back or deleted, and nothing else. What lies deeper in it goes with
 * what it lies in.
 */
export function lacksInBin(context: Context, node: NodeId, action: Action): Refusal | undefined {
  const place = placeOf(context.before, node)
  if (place?.node.binned == null) return { code: 'unknown', what: 'place' }
  const isInBin = place.path.slice(1).some(each => each.binned !== null)
  const held = heldBeforeStates(context.before, context.author, node)
  if (isInBin || !has(held, 'see')) return { code: 'unknown', what: 'place' }
  return has(held, action) ? undefined : { code: 'action-missing', action, node }
}
