import type { ImportRowsRequest, JudgeRowsRequest } from '#contract/board-requests.ts'
import type { JudgedRowsView, JudgedRowView } from '#contract/views/boards.ts'
import type { NodeId } from '#core/base/ids.ts'
import type { Edit } from '#core/changes/edit.ts'
import { createBreath } from '../../breath.ts'
import type { Parts } from '../../parts.ts'
import type { Asker } from '../viewer/asker.ts'
import { type RowsToWrite, writeRows } from './cells.ts'
import { judging, type Planned } from './import-judging.ts'
import { fieldsFor } from './import-fields.ts'

interface Asked<R> {
  readonly id: string
  readonly request: R
}

/**
 * What each row of a table from elsewhere would do. Rows that are on the board are found by a key, and changed where
 * they differ; an empty cell changes nothing, so the same table again does nothing. Of a row in which something is wrong
 * nothing is brought in.
 */
export async function judgeRows(
  parts: Parts,
  asker: Asker,
  { id, request }: Asked<JudgeRowsRequest>,
): Promise<JudgedRowsView> {
  const at = parts.clock()
  const { plans } = await planned(parts, asker, { id, request })
  return { at, rows: plans.map(each => each.view) }
}

/** All that is right of them, in one write. What somebody else wrote since they were judged is left, and told. */
export async function importRows(
  parts: Parts,
  asker: Asker,
  { id, request }: Asked<ImportRowsRequest>,
): Promise<JudgedRowsView> {
  const at = parts.clock()
  const { board, plans } = await planned(parts, asker, { id, request })
  const toWrite = writingFor(board, plans, request)
  if (toWrite === undefined) return { at, rows: plans.map(each => each.view) }
  const { left } = await writeRows(parts, asker, toWrite)
  const leftOf = new Map(left.map(each => [each.row, each.why]))
  return {
    at,
    rows: plans.map(({ row, view }): JudgedRowView => {
      const why = row === undefined ? undefined : leftOf.get(row)
      return why === undefined || view.verdict === 'as it is'
        ? view
        : { verdict: 'wrong', says: [why], faults: [] }
    }),
  }
}

async function planned(parts: Parts, asker: Asker, { id, request }: Asked<JudgeRowsRequest>) {
  const fields = await fieldsFor(parts, asker, { id, request })
  const judge = await judging(parts, asker, { fields, request })
  const breathe = createBreath()
  const plans: Planned[] = []
  for (const [index, cells] of request.rows.entries()) {
    plans.push(judge(cells, index))
    await breathe()
  }
  return { board: fields.board, plans }
}

function writingFor(
  board: NodeId,
  plans: readonly Planned[],
  { seen, reason }: ImportRowsRequest,
): RowsToWrite | undefined {
  const fit = plans.filter(({ view }) => view.verdict === 'new' || view.verdict === 'changes')
  if (fit.length === 0) return undefined
  const rowOf = ({ row, index }: Planned) => row ?? `new:r${index}`
  return {
    board,
    reason,
    moves: fit.flatMap(({ move }): Edit[] => (move === undefined ? [] : [move])),
    request: {
      isPartial: true,
      rows: fit.flatMap(plan =>
        plan.row === undefined ? [{ row: rowOf(plan), section: plan.section }] : [],
      ),
      cells: fit.flatMap(plan =>
        plan.cells.map(({ column, value }) => ({ row: rowOf(plan), column, value, seen })),
      ),
    },
  }
}
