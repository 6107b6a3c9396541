import { Op } from 'sequelize'
import type { ColumnId, WorkspaceId } from '#core/base/ids.ts'
import { ok } from '#core/base/result.ts'
import type { Parts } from '../../parts.ts'
import type { RowChange } from '../../store/commit.ts'
import { cellsOfBoard, type RowOfCells } from '../../store/content/row-cells.ts'
import type { GoneColumnRow } from '../../store/tables.ts'
import { submit } from '../../store/writer.ts'

/** A column that is no more keeps its cells for a while: until then it can come back with them. */
const keptFor = 30 * 86_400_000
const rowsAtOnce = 200

/** Takes away the cells of columns that are gone for good. How they came to be is told of no column that is not there. */
export async function sweepGoneColumns({ writer, clock }: Parts): Promise<void> {
  const where = { at: { [Op.lt]: clock() - keptFor } }
  const gone = (await writer.tables.goneColumns.findAll({ where, raw: true })) as unknown as GoneColumnRow[]
  for (const column of gone) await sweepColumn(writer, column)
}

async function sweepColumn(writer: Parts['writer'], { workspace, id, board }: GoneColumnRow): Promise<void> {
  for await (const rows of cellsOfBoard(writer.tables, { workspace, board, atOnce: rowsAtOnce })) {
    const holding = rows.filter(({ cells }) => id in cells)
    if (holding.length > 0)
      await submit(writer, () => ok({ value: undefined, ...without(workspace, id, holding) }))
  }
  await submit(writer, () =>
    ok({
      value: undefined,
      rows: [{ kind: 'drop', table: 'goneColumns', workspace, ids: [id] }],
      news: [{ of: 'rows', workspace, board, rows: null }],
    }),
  )
}

/** Written only where nobody wrote meanwhile: what was missed goes with the next sweep of its board. */
const without = (workspace: WorkspaceId, column: ColumnId, rows: readonly RowOfCells[]) => ({
  rows: rows.map(({ node, version, cells }): RowChange => {
    const kept = Object.fromEntries(Object.entries(cells).filter(([id]) => id !== column))
    return {
      kind: 'update',
      table: 'rowCells',
      where: { workspace, node, version },
      fields: { cells: JSON.stringify(kept) },
    }
  }),
})
