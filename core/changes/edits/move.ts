import { rowOf } from '../../base/collection.ts'
import type { NodeId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import { levelsOf, pathOf } from '../../state/state.ts'
import { type Context, type EditRule, lacksAction, lacksActionInArchive } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { numbered, tooDeep, wrongWithin } from './node.ts'

export interface MoveNode {
  readonly kind: 'node.move'
  readonly node: NodeId
  readonly parent: NodeId
}

/** Takes a place, with all that is in it, elsewhere; a row gets a number of its new board. Its own grants go with it; what came from above stays behind. */
export const moveNode: EditRule<MoveNode> = {
  kind: 'node.move',
  lacks: (context, edit) => lacksMoving(context, edit.node, edit.parent),
  apply: (context, edit) => {
    const { state } = context.now
    const before = rowOf(state.nodes, edit.node)
    const parent = rowOf(state.nodes, edit.parent)
    if (before === undefined || parent === undefined) return refused({ code: 'unknown', what: 'place' })
    if (before.home !== null || before.parent === null) return refused({ code: 'fixed-place', kind: 'home' })
    if (pathOf(state, parent.id).some(each => each.id === before.id))
      return refused({ code: 'fixed-place', kind: 'own subtree' })
    const wrong = wrongWithin(parent, before.kind) ?? tooDeep(state, parent.id, levelsOf(state, before.id))
    if (wrong !== undefined) return refused(wrong)
    if (before.kind !== 'row' || before.parent === parent.id)
      return ok([{ table: 'nodes', id: before.id, before, after: { ...before, parent: parent.id } }])
    const { serial, changes } = numbered(parent, 1)
    const after = { ...before, parent: parent.id, section: null, serial: serial + 1 }
    return ok([...changes, { table: 'nodes', id: before.id, before, after }])
  },
}

/** Remove at the node and at its old parent, add at the new one. */
export function lacksMoving(context: Context, node: NodeId, to: NodeId): Refusal | undefined {
  const row = rowOf(context.before.state.nodes, node)
  const lacks = lacksActionInArchive(context, node, 'remove')
  if (lacks !== undefined || row?.parent == null) return lacks ?? lacksAction(context, to, 'add')
  return row.home === null
    ? (lacksActionInArchive(context, row.parent, 'remove') ?? lacksAction(context, to, 'add'))
    : { code: 'fixed-place', kind: 'home' }
}
