import { theWeb } from '../../access/public.ts'
import { peopleOf } from '../../access/subject.ts'
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

/** The records that changed, and what they changed from and to. */
export type Touching = Pick<Whole, 'changes' | 'before' | 'after'>

/**
 * The people whose access can differ: those whose own records changed where nothing else did, else
 * everybody, and the web. Never too few.
 */
export function touchedPeople({ changes, before, after }: Touching): PersonId[] {
  const found = new Set<PersonId>()
  for (const change of changes) {
    const { table } = change
    if (table === 'persons') found.add(change.id)
    else if (table === 'channels') continue
    else if (table === 'memberships' || table === 'holdings' || table === 'invitations')
      found.add((change.before ?? change.after)?.person as PersonId)
    else return [theWeb, ...new Set([...peopleOf(before), ...peopleOf(after)].map(person => person.id))]
  }
  return [...found]
}

/**
 * The nodes at which access can differ by these changes: what is below the nodes whose entries
 * changed, or everything where it is about people and teams. Never too few; often too many.
 */
export function touchedNodes({ changes, before, after }: Touching): NodeId[] {
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
      case 'columns':
        for (const row of [change.before, change.after]) if (row !== null) tops.add(row.board)
        break
      case 'channels':
      case 'invitations':
      case 'holdings':
      case 'roles':
        break
      default:
        tops.add(rootOf(after.state).id)
    }
  }
  const found = new Set<NodeId>()
  for (const { state } of [after, before])
    for (const top of tops) for (const node of subtreeOf(state, top)) found.add(node.id)
  return [...found]
}
