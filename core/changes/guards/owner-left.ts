import { ownersOf } from '../../access/powers.ts'
import { snapshotOf } from '../../state/snapshot.ts'
import type { PersonId } from '../../base/ids.ts'
import type { Snapshot } from '../../state/state.ts'
import { afterAllEnds } from '../affected-scope.ts'
import type { Guard } from './guard.ts'

/** Whether a workspace would be left without an owner if this one went: now, or once all ends have passed. */
export const isLastOwner = ({ state, at }: Snapshot, person: PersonId): boolean =>
  [at, afterAllEnds].some(then => {
    const owners = ownersOf(snapshotOf(state, then))
    return owners.length === 1 && owners[0] === person
  })

/** A workspace that has an active owner keeps one, now and once all ends have passed. */
export const ownerLeft: Guard = ({ before, after }) =>
  [after.at, afterAllEnds].some(
    at =>
      ownersOf(snapshotOf(after.state, at)).length === 0 && ownersOf(snapshotOf(before.state, at)).length > 0,
  )
    ? { code: 'no-owner-left' }
    : undefined
