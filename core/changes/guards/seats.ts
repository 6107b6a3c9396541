import { seatsTaken } from '../../access/seats.ts'
import { workspaceOf } from '../../state/state.ts'
import type { Guard } from './guard.ts'

/** No change takes a seat that is not there. Too many taken already blocks nothing that takes no more. */
export const seats: Guard = ({ before, after, changes }) => {
  const { seats: bought } = workspaceOf(after.state)
  if (bought === null || !changes.some(change => counting.has(change.table))) return undefined
  const taken = seatsTaken(after)
  if (taken <= bought) return undefined
  const takenBefore = seatsTaken(before)
  return taken > takenBefore
    ? { code: 'no-seat', free: Math.max(0, bought - takenBefore), needed: taken - takenBefore }
    : undefined
}

const counting: ReadonlySet<string> = new Set(['persons', 'holdings', 'roles', 'workspaces'])
