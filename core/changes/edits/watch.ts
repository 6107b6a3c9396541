import { rowOf, rowsBy } from '../../base/collection.ts'
import { ok, refused } from '../../base/result.ts'
import type { Watch } from '../../people/asking.ts'
import { type Context, type EditRule, isTaken, lacksActionInArchive } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { gone } from '../../state/naming.ts'
import type { NodeId, WatchId } from '../../base/ids.ts'

export interface BeginWatch {
  readonly kind: 'watch.begin'
  readonly watch: WatchId
  readonly node: NodeId
}

/** Wants to be told when access at a place or below it changes: to whoever may see all of it there. */
export const beginWatch: EditRule<BeginWatch> = {
  kind: 'watch.begin',
  lacks: (context, { node }) => lacksActionInArchive(context, node, 'share'),
  apply: ({ now, author }, { watch: id, node }) => {
    const isThere = rowsBy(now.state.watches, 'person', author).some(each => each.node === node)
    if (isThere || isTaken(now.state, 'watches', id)) return refused({ code: 'already-there', what: 'watch' })
    const after: Watch = { id, person: author, node }
    return ok([{ table: 'watches', id, before: null, after }])
  },
}

export interface EndWatch {
  readonly kind: 'watch.end'
  readonly watch: WatchId
}

export const endWatch: EditRule<EndWatch> = {
  kind: 'watch.end',
  lacks: ({ before, author }, { watch }) =>
    rowOf(before.state.watches, watch)?.person === author ? undefined : { code: 'unknown', what: 'watch' },
  apply: ({ now }, { watch }) => {
    const before = rowOf(now.state.watches, watch)
    return before === undefined ? refused({ code: 'unknown', what: 'watch' }) : ok([gone('watches', before)])
  },
}

/** What one wants to be told of is one's own. */
export const lacksWatch = (
  context: Context,
  before: Watch | null,
  after: Watch | null,
): Refusal | undefined => {
  const watch = after ?? before
  if (watch?.person !== context.author) return { code: 'unknown', what: 'watch' }
  return after === null ? undefined : lacksActionInArchive(context, after.node, 'share')
}
