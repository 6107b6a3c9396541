import {
  type ClipboardEvent,
  type KeyboardEvent,
  type ReactNode,
  type RefObject,
  useEffect,
  useRef,
  useState,
} from 'react'
import { type ActionSet, has } from '#core/levels/action.ts'
import { say } from '../../../store/message.ts'
import { useAppDispatch } from '../../../store/store.ts'
import { cssWidth, type OpenBoard, useOpenBoard } from '../board-context.ts'
import { type ColumnOrder, useColumnOrder } from '../use-column-order.ts'
import { useTellEditing } from '../use-edited.ts'
import { Unwritten } from '../Unwritten.tsx'
import type { RowsAt } from '../use-rows.ts'
import type { CellWrite } from '../writing.ts'
import { readTable, writtenTable } from './clipboard.ts'
import { PasteOffer } from './PasteOffer.tsx'
import { type Paste, pasteOf, rowsPastedInto } from './paste.ts'
import { cellId } from './RowLine.tsx'
import { movedBy } from './selection.ts'
import type { RowOrder } from './use-row-order.ts'
import { type TableState, wordsOf } from './use-table.ts'

interface Props {
  readonly table: TableState
  readonly order: RowOrder
  readonly scroll: RefObject<HTMLDivElement | null>
  readonly width: number
  readonly lines: number
  readonly children: ReactNode
}

/** The table as one thing that takes keys and the clipboard: it keeps the focus, and says which of its cells is meant. */
export function TableKeys({ table, order, scroll, width, lines, children }: Props) {
  const board = useOpenBoard()
  const { slug, node, shown, writing } = board
  const { selection, editing, rows } = table
  const columns = useColumnOrder()
  const [paste, setPaste] = useState<Paste>()
  const wasEditing = useRef(false)
  const [row, column] = editing === undefined ? [] : [rows.rowAt(editing.row), shown[editing.column]]
  useTellEditing(
    { slug, id: node.id },
    row === undefined || column === undefined ? undefined : { row: row.id, column: column.id },
  )
  const isEditing = editing !== undefined
  // What was written in is gone with its focus: the table goes on with it, unless somebody went elsewhere.
  useEffect(() => {
    if (!isEditing && document.activeElement === document.body && wasEditing.current) scroll.current?.focus()
    wasEditing.current = isEditing
  }, [isEditing, scroll])
  const clipboard = useClipboard(table, setPaste)
  return (
    <>
      <Unwritten writing={writing} />
      {paste !== undefined && <PasteOffer paste={paste} onDone={() => setPaste(undefined)} />}
      <div
        ref={scroll}
        role="grid"
        tabIndex={0}
        aria-label={node.name}
        aria-rowcount={lines + 1}
        aria-colcount={shown.length}
        aria-multiselectable
        aria-activedescendant={cellId(selection.at)}
        className="min-h-0 flex-1 overflow-auto outline-none max-md:h-[70dvh] max-md:flex-none focus-visible:ring-1 focus-visible:ring-primary/60"
        // What takes the focus never lies under the first column.
        style={{ scrollPaddingLeft: shown[0] === undefined ? 0 : cssWidth(shown[0]) }}
        onKeyDown={event => onTableKey(event, { table, board, order, columns })}
        {...clipboard}
      >
        <div className="flex min-h-full flex-col" style={{ width: Math.max(width, 0), minWidth: '100%' }}>
          {children}
        </div>
      </div>
    </>
  )
}

/** What the clipboard does to a block of cells. */
function useClipboard(table: TableState, setPaste: (paste: Paste) => void) {
  const board = useOpenBoard()
  const dispatch = useAppDispatch()
  const onRefused = () =>
    dispatch(
      say({
        text: 'Nothing was copied: here only rows that are on the screen can be. Export CSV takes all.',
      }),
    )
  const onCopy = (event: ClipboardEvent, isCut: boolean) => {
    if (table.editing !== undefined || isTyping(event.target)) return
    event.preventDefault()
    void copy(event.clipboardData, { board, table, onRefused }).then(from => {
      if (isCut && from !== undefined) void table.writeAll(emptied(table, from))
    })
  }
  const onPaste = (event: ClipboardEvent) => {
    if (table.editing !== undefined || isTyping(event.target)) return
    event.preventDefault()
    const text = readTable(event.clipboardData.getData('text/plain'))
    void table.rowsIn(rowsPastedInto(table, text)).then(into => {
      if (into === undefined) return
      const found = pasteOf(board, table, { rows: into, text })
      if (found.isPlain) void table.writeAll(found.writes)
      else setPaste(found)
    })
  }
  return {
    onCopy: (event: ClipboardEvent) => onCopy(event, false),
    onCut: (event: ClipboardEvent) => onCopy(event, true),
    onPaste,
  }
}

/** Whether an event comes from a field within the table, which has its own clipboard and keys. */
const isTyping = (target: EventTarget): boolean =>
  target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement

interface Copying {
  readonly board: OpenBoard
  readonly table: TableState
  readonly onRefused: () => void
}

/**
 * Into the clipboard of the event, which takes it at once; rows that are not on the screen have to be read first, and go there
 * the way that not every browser allows. Resolves to the rows that were copied.
 */
async function copy(
  clipboard: DataTransfer,
  { board, table, onRefused }: Copying,
): Promise<RowsAt | undefined> {
  const { block, rows } = table
  if (rows.areThere(block.top, block.bottom)) {
    clipboard.setData('text/plain', copied(board, table, rows))
    return rows
  }
  const from = await table.rowsIn(block)
  if (from === undefined) return undefined
  try {
    await navigator.clipboard.writeText(copied(board, table, from))
    return from
  } catch {
    onRefused()
    return undefined
  }
}

function copied(board: OpenBoard, { block, valueAt }: TableState, from: RowsAt): string {
  const rows: string[][] = []
  for (let row = block.top; row <= block.bottom; row += 1)
    rows.push(
      board.shown
        .slice(block.left, block.right + 1)
        .map((each, index) => wordsOf(board, each, valueAt(from, { row, column: block.left + index }))),
    )
  return writtenTable(rows)
}

/** A row keeps its name: of all else nothing is left. */
const emptied = ({ writesIn, block }: TableState, rows: RowsAt) =>
  writesIn(rows, block, (_, { column }) => (column === undefined ? undefined : null))

/** The first row of the block over all others of it. */
const filledDown = ({ writesIn, block, valueAt }: TableState, rows: RowsAt) =>
  writesIn(rows, { ...block, top: block.top + 1 }, ({ column }, shown) =>
    shown.column === undefined ? undefined : valueAt(rows, { row: block.top, column }),
  )

async function writeIn(
  table: TableState,
  writesFrom: (table: TableState, rows: RowsAt) => readonly CellWrite[],
): Promise<void> {
  const rows = await table.rowsIn(table.block)
  if (rows !== undefined) await table.writeAll(writesFrom(table, rows))
}

interface Keyed {
  readonly table: TableState
  readonly board: OpenBoard
  readonly order: RowOrder
  readonly columns: ColumnOrder
}

function onTableKey(event: KeyboardEvent, keyed: Keyed): void {
  const { table, board } = keyed
  if (table.editing !== undefined || isTyping(event.target) || isButton(event.target)) return
  const act = placingKeyFor(event, keyed) ?? shortcutFor(event, table, board) ?? cellKeyFor(event, table)
  if (act === undefined) return
  event.preventDefault()
  // Letters are meant for the cell, also where it cannot be written: not for the shortcuts of the page.
  event.stopPropagation()
  act()
}

/** With Alt, arrows move rows and columns; with Shift, too, they make columns wider and narrower. */
function placingKeyFor(
  { altKey, shiftKey, key }: KeyboardEvent,
  { table, order, columns }: Keyed,
): (() => void) | undefined {
  if (!altKey) return undefined
  const { at } = table.selection
  switch (key) {
    case 'ArrowUp':
      return () => order.step(-1)
    case 'ArrowDown':
      return () => order.step(1)
    case 'ArrowLeft':
    case 'ArrowRight': {
      const step = key === 'ArrowLeft' ? -1 : 1
      if (shiftKey) return () => columns.widen(at.column, step)
      return () => {
        if (columns.move(at.column, at.column + step)) table.select({ ...at, column: at.column + step })
      }
    }
    default:
      return undefined
  }
}

const isButton = (target: EventTarget): boolean =>
  target instanceof HTMLElement && target.closest('button, a') !== null

const pageRows = 20

function shortcutFor(
  event: KeyboardEvent,
  table: TableState,
  { writing, view, shown, node, binChosen }: OpenBoard,
): (() => void) | undefined {
  const { ctrlKey, metaKey, shiftKey, key } = event
  if (!ctrlKey && !metaKey) return undefined
  switch (key.toLowerCase()) {
    case 'z':
      return () => void (shiftKey ? writing.redo() : writing.undo())
    case 'y':
      return () => void writing.redo()
    case 'd':
      return () => void writeIn(table, filledDown)
    case 'delete':
    case 'backspace':
      return has(node.actions as ActionSet, 'remove') ? binChosen : undefined
    case 'enter': {
      const row = table.rows.rowAt(table.selection.at.row)
      return row === undefined ? undefined : () => view.openRow(row.id)
    }
    case 'a':
      return () => {
        table.select({ row: 0, column: 0 })
        table.select({ row: table.count - 1, column: shown.length - 1 }, true)
      }
    default:
      return undefined
  }
}

function cellKeyFor(event: KeyboardEvent, table: TableState): (() => void) | undefined {
  const { key, shiftKey, ctrlKey, metaKey, altKey } = event
  const { at } = table.selection
  const bounds = { rows: table.count, columns: columnsOf(event), page: pageRows }
  const moved = altKey ? undefined : movedBy(event, at, bounds)
  if (moved !== undefined) return () => table.select(moved, shiftKey)
  if (key === 'Enter' || key === 'F2') return () => table.edit(at)
  if (key === 'Delete' || key === 'Backspace') return () => void writeIn(table, emptied)
  if (key === 'Escape') return () => table.select(at)
  const isText = key.length === 1 && !ctrlKey && !metaKey && !altKey
  return isText ? () => table.edit(at, key) : undefined
}

const columnsOf = ({ currentTarget }: KeyboardEvent): number =>
  Number(currentTarget.getAttribute('aria-colcount') ?? 1)
