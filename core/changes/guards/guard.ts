import type { NodeId, PersonId } from '../../base/ids.ts'
import { type Moment, type RecordChange, rootOf, subtreeOf } from '../../state/state.ts'
import type { Edit } from '../edit.ts'
import type { Refusal } from '../refusal.ts'

/** What a whole change set is judged by, once its edits are applied. */
export interface Whole {
  readonly author: PersonId
  readonly edits: readonly Edit[]
  readonly changes: readonly RecordChange[]
  readonly before: Moment
  readonly after: Moment
}

export type Guard = (whole: Whole) => Refusal | undefined

/**
 * The nodes at which access can differ by these changes: what is below the nodes whose entries
 * changed, or everything where it is about people and teams. Never too few; often too many.
 */
export function touchedNodes({ changes, after }: Whole): NodeId[] {
  const tops = new Set<NodeId>()
  for (const change of changes) {
    switch (change.table) {
      case 'grants':
      case 'limits':
        for (const row of [change.before, change.after]) if (row !== null) tops.add(row.node)
        break
      case 'nodes':
        tops.add(change.id)
        break
      case 'invitations':
        break
      default:
        tops.add(rootOf(after.state).id)
    }
  }
  const found = new Set<NodeId>()
  for (const top of tops) for (const node of subtreeOf(after.state, top)) found.add(node.id)
  return [...found]
}
