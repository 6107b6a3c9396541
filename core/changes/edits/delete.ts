import { rowOf } from '../../base/collection.ts'
import type { Instant } from '../../base/instant.ts'
import { ok, refused } from '../../base/result.ts'
import { goneWith } from '../../state/naming.ts'
import type { ContentNode } from '../../tree/node.ts'
import { type EditRule, lacksActionInArchive } from '../context.ts'
import { lacksInBin } from './node-state.ts'
import type { NodeId } from '../../base/ids.ts'

/** For how long what cannot be binned, a team or a shared home, is archived before it can be deleted. */
export const archiveTime: Instant = 30 * 86_400_000

/** For good: only what lies in the bin, and never undone. */
export interface DeleteNode {
  readonly kind: 'node.delete'
  readonly node: NodeId
}

/**
 * Deletes for good what lies in the bin, before its thirty days are over; and a shared home, which is never binned,
 * after thirty days in the archive.
 */
export const deleteNode: EditRule<DeleteNode> = {
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
        : ok(goneWith(state, 'nodes', node))
    return node.binned === null
      ? refused({ code: 'unknown', what: 'place' })
      : ok(goneWith(state, 'nodes', node))
  },
}

/** What goes for good from the archive and not from the bin. */
export const isArchivedHome = (node: ContentNode | null | undefined): boolean =>
  node?.home?.of === 'shared' && node.archived
