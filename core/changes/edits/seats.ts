import { ok, refused } from '../../base/result.ts'
import type { Workspace } from '../../rules/workspace.ts'
import { workspaceOf } from '../../state/state.ts'
import { type EditOf, type EditRule, lacksPrivilege } from '../context.ts'
import type { Instant } from '../../base/instant.ts'

export interface ChangeSeats {
  readonly kind: 'seats.change'
  readonly seats?: number | null | undefined
  readonly suspendedHoldSeats?: boolean | undefined
  /** From when on there are that many: `null` for at once. */
  readonly from: Instant | null
}

/** How many seats there are, at once or from the next period on, and whether suspended people keep theirs. */
export const changeSeats: EditRule<ChangeSeats> = {
  kind: 'seats.change',
  lacks: context => lacksPrivilege(context, 'change seats'),
  apply: ({ now }, edit) => {
    const before = workspaceOf(now.state)
    if (edit.from !== null && edit.from <= now.at) return refused({ code: 'end-in-past' })
    const { suspendedHoldSeats = before.suspendedHoldSeats } = edit
    const after: Workspace = { ...before, ...seatsIn(before, edit), suspendedHoldSeats }
    return ok([{ table: 'workspaces', id: before.id, before, after }])
  },
}

/** What is bought at once takes the place of what was planned; planning what there is takes a plan back. */
function seatsIn(
  before: Workspace,
  { seats, from }: EditOf<'seats.change'>,
): Pick<Workspace, 'seats' | 'seatsNext'> {
  if (seats === undefined) return { seats: before.seats, seatsNext: before.seatsNext }
  if (from === null) return { seats, seatsNext: null }
  return { seats: before.seats, seatsNext: seats === before.seats ? null : { seats, from } }
}
