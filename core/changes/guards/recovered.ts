import { placeOf } from '../../access/place.ts'
import { hasSteward } from '../../access/who.ts'
import { rowOf } from '../../base/collection.ts'
import { snapshotOf } from '../../state/snapshot.ts'
import { applyChanges, inverseOf, type Snapshot, type RecordChange } from '../../state/state.ts'
import type { Guard, ProposedChanges } from './guard.ts'

/**
 * A place is recovered only if it has no steward before the whole set, but for people whom the set suspends or removes:
 * nothing else that it takes away brings that about. Nor would it have one afterwards without the recovery.
 */
export const recovered: Guard = proposed => {
  const places = proposed.edits.flatMap(edit => (edit.kind === 'access.recover' ? [edit.node] : []))
  if (places.length === 0) return undefined
  const snapshots = [withoutLeavers(proposed), withoutRecovery(proposed).after]
  for (const node of places)
    for (const snapshot of snapshots) {
      const place = placeOf(snapshot, node)
      if (place !== undefined && hasSteward(snapshot, place)) return { code: 'has-steward', node }
    }
  return undefined
}

/** The snapshot before, with those gone who leave by the set. */
function withoutLeavers({ before, after, changes }: ProposedChanges): Snapshot {
  const left = changes.flatMap((change): RecordChange[] => {
    if (change.table !== 'persons') return []
    const was = rowOf(before.state.persons, change.id)
    const is = rowOf(after.state.persons, change.id)
    return was?.status === 'active' && (is?.status === 'suspended' || is?.status === 'removed')
      ? [{ table: 'persons', id: was.id, before: was, after: { ...was, status: is.status } }]
      : []
  })
  return left.length === 0 ? before : snapshotOf(applyChanges(before.state, left), before.at)
}

/** The same without what recovering gave and lifted. */
export function withoutRecovery(proposed: ProposedChanges): ProposedChanges {
  const ids = new Set<string>(
    proposed.edits.flatMap(edit => (edit.kind === 'access.recover' ? [edit.grant, ...edit.limits] : [])),
  )
  return without(proposed, change => ids.has(change.id))
}

/** What a whole change set would come to without some of its changes. */
export function without(
  proposed: ProposedChanges,
  isLeftOut: (change: RecordChange) => boolean,
): ProposedChanges {
  const left = proposed.changes.filter(isLeftOut)
  if (left.length === 0) return proposed
  return {
    ...proposed,
    after: snapshotOf(applyChanges(proposed.after.state, inverseOf(left)), proposed.after.at),
  }
}
