import { allRows, rowOf } from '../../base/collection.ts'
import { isLive } from '../../base/instant.ts'
import { isActive } from '../../access/subject.ts'
import { ownerRole } from '../../people/role.ts'
import type { Moment } from '../../state/state.ts'
import type { Guard } from './guard.ts'

/** A workspace that has an active owner keeps one. */
export const ownerLeft: Guard = ({ before, after }) =>
  hasOwner(after) || !hasOwner(before) ? undefined : { code: 'no-owner-left' }

const hasOwner = (moment: Moment): boolean =>
  allRows(moment.state.holdings).some(holding => {
    const person = rowOf(moment.state.persons, holding.person)
    return (
      holding.role === ownerRole &&
      isLive(holding, moment.at) &&
      person !== undefined &&
      isActive(moment, person)
    )
  })
