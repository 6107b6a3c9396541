import { ok } from '../../base/result.ts'
import { workspaceOf } from '../../state/state.ts'
import { type EditOf, type EditRule, lacksPrivilege } from '../context.ts'

/** How many seats there are, and whether suspended people keep theirs. */
export const changeSeats: EditRule<EditOf<'seats.change'>> = {
  kind: 'seats.change',
  lacks: context => lacksPrivilege(context, 'change seats'),
  apply: (context, edit) => {
    const before = workspaceOf(context.now.state)
    const seats = edit.seats === undefined ? before.seats : edit.seats
    const { suspendedHoldSeats = before.suspendedHoldSeats } = edit
    return ok([
      { table: 'workspaces', id: before.id, before, after: { ...before, seats, suspendedHoldSeats } },
    ])
  },
}
