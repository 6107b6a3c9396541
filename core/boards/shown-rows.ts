import type { BoardData } from './data.ts'
import type { CellValue } from './kind.ts'
import { kindOf } from './kinds/all.ts'
import { type RowsAsked, seenColumn } from './rows.ts'
import { heldAt } from './vectors.ts'
import { nameColumn } from './view.ts'

/** A row as it is shown to one who asks. */
export interface ShownRow {
  readonly id: string
  readonly name: string
  readonly section: string | null
  readonly order: number
  /** When something that they see was written last: who writes a cell says which version they saw. */
  readonly version: number
  /** By column; what is empty is not there. */
  readonly cells: Readonly<Record<string, CellValue>>
}

/** Some rows, by their slots, with what stands in the columns that one sees. */
export function shownRows(
  board: BoardData,
  asked: Pick<RowsAsked, 'columns' | 'unknown'>,
  slots: Iterable<number>,
): ShownRow[] {
  const columns = asked.columns.flatMap(({ id }) => seenColumn(board, asked, id) ?? [])
  const written = [nameColumn, ...asked.columns.map(each => each.id)].flatMap(
    id => board.columns.get(id) ?? [],
  )
  return Array.from(slots, slot => {
    const cells: Record<string, CellValue> = {}
    for (const { form, held } of columns) {
      const value = kindOf(form).stored(heldAt(held, slot), form.settings)
      if (value !== null) cells[form.id] = value
    }
    return {
      id: board.ids[slot] as string,
      name: board.names.texts[slot] as string,
      section: board.sections.lists[board.sections.codes[slot] as number]?.[0] ?? null,
      order: board.orders.numbers[slot] as number,
      version: Math.max(0, ...written.map(each => each.writtenAt.numbers[slot] || 0)),
      cells,
    }
  })
}
