import { cellValue } from '#core/boards/data.ts'
import type { ConversionRequest } from '#contract/board-requests.ts'
import type { ConversionView } from '#contract/views/boards.ts'
import { rowOf } from '#core/base/collection.ts'
import { converted } from '#core/boards/conversion.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import { createBreath } from '../../breath.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { cellsOfBoard } from '../../store/content/row-cells.ts'
import type { Asker } from '../viewer/asker.ts'
import { visibleColumnsAt } from './looking.ts'
import { mayArrange, seenBoard } from './rows.ts'
import { usageFor, usageOfAll } from './usage.ts'

const examplesTold = 5
const rowsAtOnce = 500

/** What becoming another kind would do to the cells of a column: how many it would empty, and some of these. */
export async function conversionView(
  parts: Parts,
  asker: Asker,
  {
    id,
    column: of,
    request,
  }: { readonly id: string; readonly column: string; readonly request: ConversionRequest },
): Promise<ConversionView> {
  const { workspace, snapshot } = asker
  const board = seenBoard(asker, id)
  const column = visibleColumnsAt(asker, id).find(each => each.id === of)
  if (column === undefined || !mayArrange(asker, board)) throw problemOf('not-found')
  const to = { kind: request.as, settings: request.settings }
  const wrong = kindOf(to).settings.wrong(to.settings)
  if (wrong !== undefined) throw problemOf('bad-input', { faults: [{ at: 'settings', message: wrong }] })
  const usage = usageOfAll(snapshot)
  const shown = usageFor(asker)
  const breathe = createBreath()
  let [filled, emptied] = [0, 0]
  const examples = new Set<string>()
  for await (const rows of cellsOfBoard(parts.writer.tables, { workspace, board, atOnce: rowsAtOnce }))
    for (const { node, cells } of rows) {
      await breathe()
      const cell = cells[column.id]
      const value = cell === undefined ? null : cellValue(column, cell, usage)
      if (value === null || rowOf(snapshot.state.nodes, node)?.parent !== board) continue
      filled += 1
      if (converted(value, { from: column, to }, usage) !== null) continue
      emptied += 1
      if (examples.size < examplesTold)
        examples.add(kindOf(column).words(value, column.settings, shown).slice(0, 100))
    }
  return { filled, emptied, examples: [...examples].filter(each => each !== '') }
}
