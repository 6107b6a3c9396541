import type { CellValue } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import type { OpenBoard, Shown } from '../board-context.ts'
import type { NewRow } from '../use-writing.ts'
import type { CellWrite } from '../writing.ts'
import type { RowsAt } from '../use-rows.ts'
import { type Block, isOne } from './selection.ts'
import { isWritable, type TableState } from './use-table.ts'

/** What a paste comes to: what is written, what cannot be, and the rows that it would take besides. */
export interface Paste {
  readonly writes: readonly CellWrite[]
  /** Cells that cannot be read, or that are not one's own, with the words and why. */
  readonly faults: readonly { readonly text: string; readonly why: string }[]
  readonly newRows: readonly NewRow[]
  readonly newCells: readonly CellWrite[]
  /** Nothing has to be decided. */
  readonly isPlain: boolean
}

const newRowsAtMost = 5000

type Text = readonly (readonly string[])[]

/** A text alone goes into each cell of a selected block. */
const isSpreadOver = ({ block }: TableState, text: Text): boolean =>
  text.length === 1 && text[0]?.length === 1 && !isOne(block)

/** The rows into which something is pasted, which begin where one is. */
export function rowsPastedInto(table: TableState, text: Text): Pick<Block, 'top' | 'bottom'> {
  const { block, count } = table
  const bottom = isSpreadOver(table, text) ? block.bottom : Math.min(count, block.top + text.length) - 1
  return { top: block.top, bottom }
}

interface Into {
  readonly rows: RowsAt
  readonly text: Text
}

export function pasteOf(board: OpenBoard, table: TableState, { rows, text }: Into): Paste {
  const { block } = table
  const isSpread = isSpreadOver(table, text)
  const width = isSpread ? block.right - block.left + 1 : Math.max(0, ...text.map(row => row.length))
  const reading = readingOf(board)
  const end = rowsPastedInto(table, text).bottom + 1
  const writes = table.writesIn(
    rows,
    { top: block.top, bottom: end - 1, left: block.left, right: block.left + width - 1 },
    ({ row, column }, shown) => {
      const cell = isSpread ? text[0]?.[0] : text[row - block.top]?.[column - block.left]
      return cell === undefined ? undefined : reading.read(shown, cell)
    },
  )
  const blocked = isSpread ? 0 : lockedIn(board, table, { rows, end, width })
  const more = isSpread || !board.mayAdd ? [] : text.slice(end - block.top, end - block.top + newRowsAtMost)
  const made = more.map((cells, index) => newRowFrom(board, { cells, index, left: block.left, reading }))
  const faults = [
    ...reading.faults,
    ...(blocked === 0 ? [] : [{ text: '', why: `${blocked} of the cells are not yours to change.` }]),
  ]
  return {
    writes,
    faults,
    newRows: made.map(each => each.row),
    newCells: made.flatMap(each => each.cells),
    isPlain: faults.length === 0 && made.length === 0,
  }
}

interface Reading {
  readonly faults: { readonly text: string; readonly why: string }[]
  readonly read: (shown: Shown, text: string) => CellValue | undefined
}

function readingOf({ usage }: OpenBoard): Reading {
  const faults: { text: string; why: string }[] = []
  const read = ({ column, name }: Shown, text: string): CellValue | undefined => {
    if (column === undefined) return text.trim() === '' ? undefined : text.trim().slice(0, 200)
    const found = kindOf(column).parse(text, column.settings, usage)
    if (found.ok) return found.value
    faults.push({ text: text.slice(0, 60), why: `${name}: ${found.error}` })
    return undefined
  }
  return { faults, read }
}

interface Pasted extends Pick<Into, 'rows'> {
  readonly end: number
  readonly width: number
}

function lockedIn({ shown }: OpenBoard, { block }: TableState, { rows, end, width }: Pasted): number {
  let locked = 0
  for (let row = block.top; row < end; row += 1)
    for (const to of shown.slice(block.left, block.left + width)) {
      const of = rows.rowAt(row)
      if (of !== undefined && !isWritable(of, to)) locked += 1
    }
  return locked
}

interface NewRowText {
  readonly cells: readonly string[]
  readonly index: number
  readonly left: number
  readonly reading: Reading
}

/** A row that is made of what is pasted below the last one: without a name it is called by its number. */
function newRowFrom({ shown }: OpenBoard, { cells, index, left, reading }: NewRowText) {
  const row = `new:${index}`
  const written = cells.flatMap((text, nth): CellWrite[] => {
    const to = shown[left + nth]
    if (to === undefined || (to.column !== undefined && (!to.column.isMine || !kindOf(to.column).isWritten)))
      return []
    const value = reading.read(to, text)
    return value === undefined || value === null ? [] : [{ row, column: to.id, value, before: null, seen: 0 }]
  })
  const hasName = written.some(each => each.column === 'name')
  const name = { row, column: 'name', value: `Row ${index + 1}`, before: null, seen: 0 }
  return { row: { row, section: null }, cells: hasName ? written : [name, ...written] }
}
