import { useContext, useMemo, useRef, useState } from 'react'
import type { RowView } from '#contract/views/boards.ts'
import { isSame } from '#core/base/same.ts'
import type { CellValue } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import { nameColumn } from '#core/boards/view.ts'
import { say } from '../../../store/message.ts'
import { useAppDispatch } from '../../../store/store.ts'
import { type OpenBoard, type Shown, useOpenBoard } from '../board-context.ts'
import type { GoOn } from '../cells/editing.ts'
import type { LoadedRows, RowsAt } from '../use-rows.ts'
import { PendingCells } from '../use-writing.ts'
import { type CellWrite, type OfCells, valueIn } from '../writing.ts'
import { type Block, blockOf, type Selection, type Spot } from './selection.ts'

/** Where one is in the table, what is written there, and what can be done with a block. */
export interface TableState {
  readonly rows: LoadedRows
  readonly count: number
  readonly selection: Selection
  readonly block: Block
  readonly editing: Editing | undefined
  readonly select: (at: Spot, isExtended?: boolean) => void
  /** From a cell on which the pointer went down, until it comes up, the block reaches to each that it enters. */
  readonly selectFrom: (at: Spot, isExtended: boolean) => void
  readonly selectTo: (at: Spot) => void
  /** Begins to write in a cell, if one may; with what was typed, over what stands there. */
  readonly edit: (at: Spot, typed?: string) => void
  readonly finish: (value: CellValue, goOn: GoOn) => void
  readonly cancel: () => void
  /** What is done with a block takes all its rows, of which there may be more than are on the screen; nothing where that cannot be. */
  readonly rowsIn: (block: Pick<Block, 'top' | 'bottom'>) => Promise<RowsAt | undefined>
  readonly valueAt: (rows: RowsAt, at: Spot) => CellValue
  readonly writesIn: (
    rows: RowsAt,
    block: Block,
    valueFor: (at: Spot, shown: Shown) => CellValue | undefined,
  ) => CellWrite[]
  readonly writeAll: (cells: readonly CellWrite[]) => Promise<boolean>
}

export interface Editing extends Spot {
  readonly typed: string | undefined
  /** The row as it was when one began to write: what came since has not been seen. */
  readonly of: RowView
  readonly before: CellValue
}

interface Given {
  readonly rows: LoadedRows
  readonly count: number
  readonly scrollTo: (at: Spot) => void
}

export const isWritable = (row: RowView, { column }: Shown): boolean =>
  row.mayEdit && (column === undefined || (column.isMine && kindOf(column).isWritten))

export function useTable({ rows, count, scrollTo }: Given): TableState {
  const board = useOpenBoard()
  const { shown, writing } = board
  const [editing, setEditing] = useState<Editing>()
  const selecting = useSelecting(scrollTo, editing !== undefined)
  const { select } = selecting
  const pending = useContext(PendingCells)
  const valueAt = (from: RowsAt, at: Spot) => shownValue({ shown, rows: from, pending }, at)
  const writesIn: TableState['writesIn'] = (from, { top, bottom, left, right }, valueFor) => {
    const writes: CellWrite[] = []
    for (let row = top; row <= bottom; row += 1)
      for (let column = left; column <= right; column += 1) {
        const [of, to] = [from.rowAt(row), shown[column]]
        if (of === undefined || to === undefined || !isWritable(of, to)) continue
        const value = valueFor({ row, column }, to)
        const before = valueAt(from, { row, column })
        if (value !== undefined && !isSame(value, before))
          writes.push({ row: of.id, column: to.id, value, before, seen: of.version })
      }
    return writes
  }
  return {
    rows,
    count,
    ...selecting,
    editing,
    rowsIn: useRowsIn(rows),
    valueAt,
    writesIn,
    writeAll: cells => writing.write(cells),
    edit: (at, typed) => {
      const [row, to] = [rows.rowAt(at.row), shown[at.column]]
      if (row === undefined || to === undefined || !isWritable(row, to)) return
      if (to.column?.kind === 'checkbox')
        void writing.write(
          writesIn(rows, blockOf({ at, from: at }), spot => (valueAt(rows, spot) === true ? null : true)),
        )
      else setEditing({ ...at, typed, of: row, before: valueAt(rows, at) })
    },
    finish: (value, goOn) => {
      if (editing === undefined) return
      setEditing(undefined)
      const { of, before, column } = editing
      const to = shown[column]
      if (to !== undefined && !isSame(value, before))
        void writing.write([{ row: of.id, column: to.id, value, before, seen: of.version }])
      if (goOn !== 'stay') select(after(editing, goOn, { rows: count, columns: shown.length }))
    },
    cancel: () => setEditing(undefined),
  }
}

type Selecting = Pick<TableState, 'selection' | 'block' | 'select' | 'selectFrom' | 'selectTo'>

/** Which cell is meant, and which block; while one writes in a cell the pointer selects none. */
function useSelecting(scrollTo: Given['scrollTo'], isEditing: boolean): Selecting {
  const [selection, setSelection] = useState<Selection>(beginning)
  const block = useMemo(() => blockOf(selection), [selection])
  const isDown = useRef(false)
  const select = (at: Spot, isExtended = false) => {
    setSelection(before => ({ at, from: isExtended ? before.from : at }))
    scrollTo(at)
  }
  return {
    selection,
    block,
    select,
    selectFrom: (at, isExtended) => {
      isDown.current = true
      const up = () => {
        isDown.current = false
      }
      window.addEventListener('mouseup', up, { once: true })
      select(at, isExtended)
    },
    selectTo: at => {
      if (isDown.current && !isEditing) select(at, true)
    },
  }
}

const beginning: Selection = { at: { row: 0, column: 0 }, from: { row: 0, column: 0 } }

/** What stands in a cell, with what was written and is not confirmed yet. */
function shownValue({ shown, rows, pending }: ShownIn, { row, column }: Spot): CellValue {
  const [of, to] = [rows.rowAt(row), shown[column]]
  if (of === undefined || to === undefined) return null
  const written = pending.get(of.id)?.get(to.id)
  return written === undefined ? valueIn(of, to.id) : written
}

interface ShownIn extends Pick<OpenBoard, 'shown'> {
  readonly rows: RowsAt
  readonly pending: OfCells<CellValue>
}

/** So many rows are taken together: for more there are conditions, the import and the export. */
const rowsTogether = 5000

function useRowsIn({ load }: LoadedRows): TableState['rowsIn'] {
  const dispatch = useAppDispatch()
  return async ({ top, bottom }) => {
    if (bottom - top >= rowsTogether) {
      dispatch(
        say({ text: `Nothing was changed: select ${rowsTogether.toLocaleString('en')} rows at most.` }),
      )
      return undefined
    }
    const rows = await load(top, bottom)
    if (rows === undefined)
      dispatch(say({ text: 'Nothing was changed: the rows could not be read. Try again.' }))
    return rows
  }
}

function after(
  { row, column }: Spot,
  goOn: Exclude<GoOn, 'stay'>,
  { rows, columns }: { readonly rows: number; readonly columns: number },
): Spot {
  if (goOn === 'down') return { row: Math.min(rows - 1, row + 1), column }
  const next = column + (goOn === 'right' ? 1 : -1)
  if (next >= columns) return { row: Math.min(rows - 1, row + 1), column: 0 }
  return next < 0 ? { row: Math.max(0, row - 1), column: columns - 1 } : { row, column: next }
}

/** What a cell says in words, as it is copied. */
export function wordsOf({ usage }: OpenBoard, { column, id }: Shown, value: CellValue): string {
  if (value === null) return ''
  return id === nameColumn || column === undefined
    ? String(value)
    : kindOf(column).words(value, column.settings, usage)
}
