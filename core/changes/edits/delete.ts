import { rowOf, rowsBy } from '../../base/collection.ts'
import type { NodeId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import { type RecordChange, type State, subtreeOf } from '../../state/state.ts'
import type { EditOf, EditRule } from '../context.ts'
import { lacksInBin } from './node-state.ts'

/** Deletes for good what lies in the bin, before its thirty days are over. */
export const deleteNode: EditRule<EditOf<'node.delete'>> = {
  kind: 'node.delete',
  lacks: (context, edit) => lacksInBin(context, edit.node, 'seal'),
  apply: (context, edit) => {
    const { state } = context.now
    const node = rowOf(state.nodes, edit.node)
    return node?.binned == null ? refused({ code: 'unknown', what: 'place' }) : ok(deletionOf(state, node.id))
  },
}

/** A place with all that lies in it and all that is set there. What lies deepest goes first. */
export function deletionOf(state: State, top: NodeId): RecordChange[] {
  return [...subtreeOf(state, top)]
    .toReversed()
    .flatMap(node => [
      ...rowsBy(state.grants, 'node', node.id).map(before => gone('grants', before)),
      ...rowsBy(state.limits, 'node', node.id).map(before => gone('limits', before)),
      ...rowsBy(state.columns, 'board', node.id).map(before => gone('columns', before)),
      ...rowsBy(state.watches, 'node', node.id).map(before => gone('watches', before)),
      gone('nodes', node),
    ])
}

export const gone = (table: RecordChange['table'], before: { readonly id: string }) =>
  ({ table, id: before.id, before, after: null }) as RecordChange
