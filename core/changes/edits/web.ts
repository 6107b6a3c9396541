import { rowOf } from '../../base/collection.ts'
import { mayPublish } from '../../access/public.ts'
import { ok, refused } from '../../base/result.ts'
import { pathOf } from '../../state/state.ts'
import { type EditOf, type EditRule, lacksAction } from '../context.ts'

/** Publishes a place with what is in it, excludes it from what is published above it, or takes either back. */
export const setWeb: EditRule<EditOf<'node.web'>> = {
  kind: 'node.web',
  lacks: (context, edit) => lacksAction(context, edit.node, 'publish'),
  apply: (context, edit) => {
    const { state } = context.now
    const before = rowOf(state.nodes, edit.node)
    if (before === undefined) return refused({ code: 'unknown', what: 'place' })
    if (edit.web === 'published' && !mayPublish(state, pathOf(state, before.id)))
      return refused({ code: 'publishing-off' })
    return ok([{ table: 'nodes', id: before.id, before, after: { ...before, web: edit.web } }])
  },
}
