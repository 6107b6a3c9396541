import type { BoardData } from './data.ts'
import type { Totals } from './kind.ts'
import { kindOf } from './kinds/all.ts'
import { type RowsAsked, seenColumn } from './rows.ts'
import type { Vector } from './vectors.ts'

/** By the slots that they are of, and by the cells: both stay the same where nothing of them changes. */
const known = new WeakMap<Int32Array, WeakMap<Vector, Totals>>()

/** What the foot tells of each column that one sees, of some rows. Costs a look at each cell of the columns that changed. */
export function totalsFor(
  board: BoardData,
  asked: Pick<RowsAsked, 'columns' | 'unknown'>,
  slots: Int32Array,
): Record<string, Totals> {
  const ofSlots = known.get(slots) ?? new WeakMap<Vector, Totals>()
  known.set(slots, ofSlots)
  const found: Record<string, Totals> = {}
  for (const { id } of asked.columns) {
    const seen = seenColumn(board, asked, id)
    if (seen === undefined) continue
    const { form, held } = seen
    const totals = ofSlots.get(held) ?? kindOf(form).totals(held, slots, form.settings)
    ofSlots.set(held, totals)
    found[id] = totals
  }
  return found
}
