import { rowOf } from '../../base/collection.ts'
import type { NodeId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import { heldBeforeStates } from '../../access/evaluate.ts'
import { placeOf } from '../../access/place.ts'
import { subjectOf } from '../../access/subject.ts'
import { has } from '../../levels/action.ts'
import { type RecordChange, type State, subtreeOf } from '../../state/state.ts'
import { type Context, type EditOf, type EditRule, lacksActionInArchive, lacksEditing } from '../context.ts'
import type { Refusal } from '../refusal.ts'

/** Archives, bins, drafts, and takes each back. Bringing back leaves what was on the web withdrawn. */
export const setNodeState: EditRule<EditOf<'node.state'>> = {
  kind: 'node.state',
  lacks: (context, edit) => {
    const isOther = edit.archived !== undefined || edit.draft !== undefined
    if (edit.binned === false)
      return isOther ? { code: 'unknown', what: 'place' } : lacksBringingBack(context, edit.node)
    if (edit.archived !== undefined || edit.binned !== undefined)
      return lacksActionInArchive(context, edit.node, 'remove')
    return lacksEditing(context, edit.node)
  },
  apply: (context, edit) => {
    const before = rowOf(context.now.state.nodes, edit.node)
    if (before === undefined) return refused({ code: 'unknown', what: 'place' })
    if (before.home !== null && edit.binned === true) return refused({ code: 'fixed-place', kind: 'home' })
    const { archived = before.archived, binned = before.binned, draft = before.draft } = edit
    const web = (archived || binned) && before.web === 'published' ? null : before.web
    const after = { ...before, archived, binned, draft, web }
    const below = archived || binned ? withdrawnBelow(context.now.state, before.id) : []
    return ok([{ table: 'nodes', id: before.id, before, after }, ...below])
  },
}

/** What is published below a place that leaves the web; bringing it back leaves it withdrawn. */
export const withdrawnBelow = (state: State, top: NodeId): RecordChange[] =>
  [...subtreeOf(state, top)]
    .filter(node => node.id !== top && node.web === 'published')
    .map(node => ({ table: 'nodes', id: node.id, before: node, after: { ...node, web: null } }))

/** Out of the bin nothing else is done, and what lies deeper in it comes back with what it lies in. */
export function lacksBringingBack(context: Context, node: NodeId): Refusal | undefined {
  const place = placeOf(context.before, node)
  const subject = subjectOf(context.before, context.author)
  if (place?.node.binned !== true || subject === undefined) return { code: 'unknown', what: 'place' }
  const isInBin = place.path.slice(1).some(each => each.binned)
  const held = heldBeforeStates(context.before, subject, place)
  if (isInBin || !has(held, 'see')) return { code: 'unknown', what: 'place' }
  return has(held, 'remove') ? undefined : { code: 'action-missing', action: 'remove', node }
}
