import { rowOf, rowsBy } from '../../base/collection.ts'
import { isLive } from '../../base/instant.ts'
import { isActive } from '../../access/subject.ts'
import { ownerRole } from '../../people/role.ts'
import { momentOf } from '../../state/moment.ts'
import type { Moment } from '../../state/state.ts'
import { afterAllEnds } from '../touched.ts'
import type { Guard } from './guard.ts'

/** A workspace that has an active owner keeps one, now and once all ends have passed. */
export const ownerLeft: Guard = ({ before, after }) =>
  [after.at, afterAllEnds].some(
    at => !hasOwner(momentOf(after.state, at)) && hasOwner(momentOf(before.state, at)),
  )
    ? { code: 'no-owner-left' }
    : undefined

const hasOwner = (moment: Moment): boolean =>
  rowsBy(moment.state.holdings, 'role', ownerRole).some(holding => {
    const person = rowOf(moment.state.persons, holding.person)
    return isLive(holding, moment.at) && person !== undefined && isActive(moment, person)
  })
