import { rowOf } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import { type EditRule, lacksAction } from '../context.ts'
import type { NodeId } from '../../base/ids.ts'

export interface SetWeb {
  readonly kind: 'node.web'
  readonly node: NodeId
  readonly web: 'published' | 'excluded' | null
}

/**
 * Publishes a place with what is in it, excludes it from what is published above it, or takes either back. Whether
 * the policies allow it is a guard's: it is asked of undoing, too.
 */
export const setWeb: EditRule<SetWeb> = {
  kind: 'node.web',
  lacks: (context, edit) => lacksAction(context, edit.node, 'publish'),
  apply: (context, edit) => {
    const before = rowOf(context.now.state.nodes, edit.node)
    if (before === undefined) return refused({ code: 'unknown', what: 'place' })
    return ok([{ table: 'nodes', id: before.id, before, after: { ...before, web: edit.web } }])
  },
}
