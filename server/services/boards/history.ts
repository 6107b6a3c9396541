import { cellValue } from '#core/boards/data.ts'
import type { RowChangeView } from '#contract/views/boards.ts'
import { isSame } from '#core/base/same.ts'
import type { CellValue, Usage } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import { nameColumn } from '#core/boards/view.ts'
import type { BoardColumn } from '#core/rules/column.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import {
  cellsOf,
  changesOf,
  type KeptChanges,
  type StoredCell,
  type StoredCells,
} from '../../store/content/row-cells.ts'
import { type Asker, knowsPerson, nameOf, visiblePlace } from '../viewer/asker.ts'
import { visibleColumnsAt } from './looking.ts'
import { usageFor, usageOfAll } from './usage.ts'

/** What was written in a row, in the columns that the asker sees; what was only written in others is not told at all. */
export async function rowHistory(parts: Parts, asker: Asker, id: string): Promise<RowChangeView[]> {
  const { node } = visiblePlace(asker, id).place
  if (node.kind !== 'row') throw problemOf('not-found')
  const at = { workspace: asker.workspace, node: node.id }
  const { tables } = parts.writer
  const columns = new Map<string, BoardColumn>(visibleColumnsAt(asker, id).map(each => [each.id, each]))
  const [now] = await cellsOf(tables, { workspace: asker.workspace, nodes: [node.id] })
  const reading = { asker, columns, now: now?.cells ?? {}, name: node.name }
  return (await changesOf(tables, at)).flatMap(each => {
    const changes = changesSeen(reading, each)
    const { version, at, by } = each
    return changes.length === 0
      ? []
      : [{ version, at, by: knowsPerson(asker, by) ? nameOf(asker.snapshot, by) : null, changes }]
  })
}

interface Reading {
  readonly asker: Asker
  readonly columns: ReadonlyMap<string, BoardColumn>
  readonly now: StoredCells
  readonly name: string
}

function changesSeen(
  { asker, columns, now, name }: Reading,
  { changes }: KeptChanges,
): RowChangeView['changes'] {
  const [shown, all] = [usageFor(asker), usageOfAll(asker.snapshot)]
  return Object.entries(changes).flatMap(([id, [before, after]]) => {
    if (id === nameColumn) {
      const [was, is] = [String(before?.[0] ?? ''), String(after?.[0] ?? '')]
      const isLast = now[nameColumn]?.[1] === after?.[1] && is === name
      return [{ column: id, before: was || null, after: is || null, was, is, isLast }]
    }
    const column = columns.get(id)
    if (column === undefined) return []
    const value = (cell: StoredCell | null) =>
      cell === null ? null : valueSeen(asker, column, cellValue(column, cell, all))
    const [was, is] = [value(before), value(after)]
    return [
      {
        column: id,
        before: was as never,
        after: is as never,
        was: words(column, was, shown),
        is: words(column, is, shown),
        isLast: isSame(now[id], after),
      },
    ]
  })
}

const words = ({ kind, settings }: BoardColumn, value: CellValue, usage: Usage): string =>
  value === null ? '' : kindOf({ kind }).words(value, settings, usage)

/** Of people and places only those whom the asker may know. */
function valueSeen(asker: Asker, { kind }: BoardColumn, value: CellValue): CellValue {
  if (!Array.isArray(value) || !['person', 'place', 'file'].includes(kind)) return value
  const { nameOf: known } = usageFor(asker)
  const some = (value as readonly string[]).filter(each => known(each) !== undefined)
  return some.length === 0 ? null : some
}
