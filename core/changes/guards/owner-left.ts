import { ownersOf } from '../../access/powers.ts'
import { momentOf } from '../../state/moment.ts'
import { afterAllEnds } from '../touched.ts'
import type { Guard } from './guard.ts'

/** A workspace that has an active owner keeps one, now and once all ends have passed. */
export const ownerLeft: Guard = ({ before, after }) =>
  [after.at, afterAllEnds].some(
    at => ownersOf(momentOf(after.state, at)).length === 0 && ownersOf(momentOf(before.state, at)).length > 0,
  )
    ? { code: 'no-owner-left' }
    : undefined
