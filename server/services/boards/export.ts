import { stringify } from 'csv-stringify/sync'
import { harmless } from '#contract/cells.ts'
import type { ViewQuery } from '#contract/board-requests.ts'
import type { CellValue } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import type { ShownRow } from '#core/boards/shown-rows.ts'
import { nameColumn } from '#core/boards/view.ts'
import { check } from '#core/access/evaluate.ts'
import { has } from '#core/levels/action.ts'
import type { BoardColumn } from '#core/rules/column.ts'
import { askBoard } from '../../boards/asking.ts'
import { createBreath } from '../../breath.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { Asker } from '../viewer/asker.ts'
import { lookAt, sectionsOf } from './looking.ts'
import { seenBoard, viewIn } from './rows.ts'
import { usageFor } from './usage.ts'

const rowsAtOnce = 2000
const layout = { record_delimiter: 'windows', quoted_match: /[\r\n]/ } as const

/** What a view shows, as CSV (RFC 4180) with a byte-order mark: under these heads an import finds its columns again. */
export async function boardCsv(
  parts: Parts,
  asker: Asker,
  { id, query }: { readonly id: string; readonly query: ViewQuery },
): Promise<string> {
  const board = seenBoard(asker, id)
  if (!has(check(asker.snapshot, asker.person, board), 'copy')) throw problemOf('not-found')
  const view = viewIn(query)
  const { looking, columns } = await lookAt(parts, asker, { id, view })
  const shown = view.columns?.map(each => each.column) ?? [nameColumn, ...columns.map(each => each.id)]
  const sections = sectionsOf(asker.snapshot.state, board)
  const fields: Field[] = [
    ...shown.flatMap(column => fieldOf(asker, columns, column) ?? []),
    ...(sections.length === 0
      ? []
      : [
          {
            head: 'Section',
            cell: ({ section }: ShownRow) => sections.find(each => each.id === section)?.name ?? '',
          },
        ]),
  ]
  const lines = [stringify([fields.map(each => harmless(each.head))], { ...layout, bom: true })]
  const breathe = createBreath()
  for (let from = 0; ; from += rowsAtOnce) {
    const { rows } = await askBoard<'rows'>(parts.boards.thread, board, {
      kind: 'rows',
      looking,
      from,
      count: rowsAtOnce,
    })
    for (const row of rows) {
      lines.push(stringify([fields.map(({ cell }) => harmless(cell(row)))], layout))
      await breathe()
    }
    if (rows.length < rowsAtOnce) return lines.join('')
  }
}

interface Field {
  readonly head: string
  readonly cell: (row: ShownRow) => string
}

function fieldOf(asker: Asker, columns: readonly BoardColumn[], id: string): Field | undefined {
  if (id === nameColumn) return { head: 'Name', cell: row => row.name }
  const column = columns.find(each => each.id === id)
  if (column === undefined) return undefined
  const usage = usageFor(asker)
  const { words } = kindOf(column)
  const cell = (value: CellValue | undefined) => (value == null ? '' : words(value, column.settings, usage))
  return { head: column.name, cell: ({ cells }) => cell(cells[id]) }
}
