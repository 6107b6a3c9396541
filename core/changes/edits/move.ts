import { rowOf } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import { pathOf } from '../../state/state.ts'
import { kindsWithin } from '../../tree/node.ts'
import { type EditOf, type EditRule, lacksAction, lacksActionInArchive } from '../context.ts'

/** Takes a place, with all that is in it, elsewhere. Its own grants go with it; what came from above stays behind. */
export const moveNode: EditRule<EditOf<'node.move'>> = {
  kind: 'node.move',
  lacks: (context, edit) => {
    const parent = rowOf(context.before.state.nodes, edit.node)?.parent ?? null
    return (
      lacksActionInArchive(context, edit.node, 'remove') ??
      (parent === null ? undefined : lacksActionInArchive(context, parent, 'remove')) ??
      lacksAction(context, edit.parent, 'add')
    )
  },
  apply: (context, edit) => {
    const { state } = context.now
    const before = rowOf(state.nodes, edit.node)
    const parent = rowOf(state.nodes, edit.parent)
    if (before === undefined || parent === undefined) return refused({ code: 'unknown', what: 'place' })
    if (before.home !== null || before.parent === null) return refused({ code: 'fixed-place', kind: 'home' })
    if (pathOf(state, parent.id).some(each => each.id === before.id))
      return refused({ code: 'fixed-place', kind: 'own subtree' })
    if (!kindsWithin(parent.kind).includes(before.kind) || parent.kind === 'root')
      return refused({ code: 'wrong-place', within: parent.kind, kind: before.kind })
    return ok([{ table: 'nodes', id: before.id, before, after: { ...before, parent: parent.id } }])
  },
}
