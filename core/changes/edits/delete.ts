import { rowOf, rowsBy } from '../../base/collection.ts'
import type { NodeId } from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'
import { ok, refused } from '../../base/result.ts'
import { type RecordChange, type State, subtreeOf } from '../../state/state.ts'
import type { ContentNode } from '../../tree/node.ts'
import { type EditOf, type EditRule, lacksActionInArchive } from '../context.ts'
import { lacksInBin } from './node-state.ts'

/** For how long what cannot be binned, a team or a shared home, is archived before it can be deleted. */
export const archiveTime: Instant = 30 * 86_400_000

/**
 * Deletes for good what lies in the bin, before its thirty days are over; and a shared home, which is never binned,
 * after thirty days in the archive.
 */
export const deleteNode: EditRule<EditOf<'node.delete'>> = {
  kind: 'node.delete',
  lacks: (context, { node }) =>
    isArchivedHome(rowOf(context.before.state.nodes, node))
      ? lacksActionInArchive(context, node, 'seal')
      : lacksInBin(context, node, 'seal'),
  apply: ({ now: { state, at } }, edit) => {
    const node = rowOf(state.nodes, edit.node)
    if (node === undefined) return refused({ code: 'unknown', what: 'place' })
    if (isArchivedHome(node))
      return node.archivedAt === null || node.archivedAt + archiveTime > at
        ? refused({ code: 'too-early', what: 'home' })
        : ok(deletionOf(state, node.id))
    return node.binned === null ? refused({ code: 'unknown', what: 'place' }) : ok(deletionOf(state, node.id))
  },
}

/** What goes for good from the archive and not from the bin. */
export const isArchivedHome = (node: ContentNode | null | undefined): boolean =>
  node?.home?.of === 'shared' && node.archived

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
