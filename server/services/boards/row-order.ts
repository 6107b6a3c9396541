import type { PutRowsRequest } from '#contract/board-requests.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { AppliedView } from '#contract/views/workspace.ts'
import { ownPlacesBelow } from '#core/access/by-id.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import { placing } from '#core/boards/order.ts'
import type { ContentNode } from '#core/tree/node.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { applyChangeSet } from '../changes/change.ts'
import { type Asker, maySee } from '../viewer/asker.ts'
import { mayArrange, seenBoard } from './rows.ts'

/** Puts rows elsewhere on their board, in one change set. Of rows that the asker does not see nothing is changed. */
export async function putRows(
  parts: Parts,
  asker: Asker,
  { id, request }: { readonly id: string; readonly request: PutRowsRequest },
): Promise<AppliedView> {
  const board = seenBoard(asker, id)
  if (!mayArrange(asker, board)) throw problemOf('not-found')
  const edits = editsFor(asker, board, request)
  return applyChangeSet(parts, asker, { request: { edits }, patience: {} })
}

function editsFor(asker: Asker, board: NodeId, { rows, before, section }: PutRowsRequest): EditRequest[] {
  const { state } = asker.snapshot
  const moved = new Set<string>(rows)
  const isSeen = seenAmong(asker, board)
  const all = rowsBy(state.nodes, 'parent', board)
  if (rows.some(row => rowOf(state.nodes, row as NodeId)?.parent !== board || !isSeen(row)))
    throw problemOf('not-found')
  const others = all
    .filter(each => each.section === section && !moved.has(each.id) && isSeen(each.id))
    .sort(byOrder)
  const at = before === null ? others.length : others.findIndex(each => each.id === before)
  if (at === -1) throw problemOf('not-found')
  const placed = placing(
    others.map(each => each.order),
    at,
    rows.length,
  )
  return [
    ...rows.map(
      (node, nth) => ({ kind: 'node.order', node, order: placed.moved[nth] ?? 0, section }) as const,
    ),
    ...placed.others.map(
      ([place, order]) => ({ kind: 'node.order', node: others[place]?.id ?? '', order }) as const,
    ),
  ]
}

/** As the board has them: those with the same number as they came. */
const byOrder = (a: ContentNode, b: ContentNode): number => a.order - b.order || (a.id < b.id ? -1 : 1)

function seenAmong(asker: Asker, board: NodeId): (row: string) => boolean {
  const hidden = new Set<string>(
    [...ownPlacesBelow(asker.snapshot.state, board)].map(each => each.id).filter(id => !maySee(asker, id)),
  )
  return row => !hidden.has(row)
}
