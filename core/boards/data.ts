import { converted } from './conversion.ts'
import { type CellValue, type ColumnForm, type Held, nothingIn, type Usage } from './kind.ts'
import { kindOf } from './kinds/all.ts'
import { nameColumn } from './view.ts'
import { noteChange } from './text-order.ts'
import { copyOf, cutTo, emptyVector, heldAt, setHeld, sizeOf, type Vector, type VectorOf } from './vectors.ts'

/**
 * A board as it is gone through: its rows by slot, what stands in their cells column by column. It holds all rows and all
 * columns that there are; who asks is told of those that they may see (rows.ts). It is never changed: a change makes
 * anew what it touches, so that what was worked out of the rest holds on.
 */
export interface BoardData {
  /** By slot: each board that comes of this one has them too. That of a row that is gone stays empty. */
  readonly ids: string[]
  readonly slotOf: Map<string, number>
  readonly size: number
  /** 1 where a row is there. */
  readonly isThere: Uint8Array
  readonly names: VectorOf<'text'>
  readonly orders: VectorOf<'number'>
  readonly sections: VectorOf<'list'>
  readonly serials: VectorOf<'number'>
  readonly madeAt: VectorOf<'number'>
  readonly makers: VectorOf<'list'>
  readonly columns: ReadonlyMap<string, CellsOf>
}

/** The cells of one column, and when each was written last by whom. */
export interface CellsOf {
  readonly form: ColumnForm
  readonly held: Vector
  readonly writtenAt: VectorOf<'number'>
  readonly writtenBy: VectorOf<'list'>
}

/** A row as it is read: what its record says, and what is written in it. */
export interface RowRead {
  readonly id: string
  readonly name: string
  readonly order: number
  readonly section: string | null
  readonly serial: number | null
  readonly madeAt: number
  readonly maker: string
  /** By column; its name is one. */
  readonly cells: Readonly<Record<string, CellRead>>
}

/** What stands in a cell, since when, and who wrote it. When is also its version: two writes of one cell never share it. */
export type CellRead = readonly [value: CellValue, at: number, by: string]

/**
 * What stands in a cell as it is stored: with which of its column's forms it was written in (the number of those that were
 * before).
 */
export type CellStored = readonly [value: CellValue, at: number, by: string, form: number]

/** A column with what it was before. */
export type ColumnRead = ColumnForm & { readonly former: readonly Pick<ColumnForm, 'kind' | 'settings'>[] }

/** What a cell holds by what its column is now, whatever it was when the cell was written. */
export function cellValue(
  { kind, settings, former }: Omit<ColumnRead, 'id'>,
  [value, , , form]: CellStored,
  usage: Usage,
): CellValue {
  const now = { kind, settings }
  return converted(value, { from: former[form] ?? now, to: now }, usage)
}

/** The cells of a row as its columns read them. */
export function cellsRead(
  columns: readonly ColumnRead[],
  stored: Readonly<Record<string, CellStored>>,
  usage: Usage,
): RowRead['cells'] {
  const cells: Record<string, CellRead> = {}
  for (const column of columns) {
    const cell = stored[column.id]
    if (cell !== undefined) cells[column.id] = [cellValue(column, cell, usage), cell[1], cell[2]]
  }
  const named = stored[nameColumn]
  if (named !== undefined) cells[nameColumn] = [null, named[1], named[2]]
  return cells
}

/** A name is a column of every board, whose cells hold nothing but when they were written: the name is the row's. */
export const emptyBoard = (columns: readonly ColumnForm[]): BoardData => ({
  ids: [],
  slotOf: new Map(),
  size: 0,
  isThere: new Uint8Array(),
  names: emptyVector('text', 0),
  orders: emptyVector('number', 0),
  sections: emptyVector('list', 0),
  serials: emptyVector('number', 0),
  madeAt: emptyVector('number', 0),
  makers: emptyVector('list', 0),
  columns: new Map(
    columns.map(form => [
      form.id,
      {
        form,
        held: emptyVector(kindOf(form).form, 0),
        writtenAt: emptyVector('number', 0),
        writtenBy: emptyVector('list', 0),
      },
    ]),
  ),
})

export interface RowChanges {
  /** New, or as they are now; each is looked at once. */
  readonly rows: Iterable<RowRead>
  readonly gone: readonly string[]
}

/** The board with some rows as they are now. Costs a copy of each column in which something differs. */
export function withRows(board: BoardData, { rows, gone }: RowChanges): BoardData {
  // A row that is new gets its slot when it is met: what it is written into grows with it.
  const draft = draftOf(board)
  for (const row of rows) writeRow(draft, row)
  for (const id of gone) {
    const slot = board.slotOf.get(id)
    if (slot !== undefined) setThere(draft, slot, 0)
  }
  return finished(draft)
}

interface Draft {
  readonly board: BoardData
  isThere: Uint8Array
  readonly own: { readonly [Part in OwnPart]: Changing<BoardData[Part]> }
  readonly columns: readonly DraftOfColumn[]
}

interface DraftOfColumn {
  readonly cells: CellsOf
  readonly held: Changing<CellsOf['held']>
  readonly writtenAt: Changing<CellsOf['writtenAt']>
  readonly writtenBy: Changing<CellsOf['writtenBy']>
}

type OwnPart = 'orders' | 'names' | 'sections' | 'serials' | 'madeAt' | 'makers'

const draftOf = (board: BoardData): Draft => ({
  board,
  isThere: board.isThere,
  own: {
    orders: changing(board.orders),
    names: changing(board.names),
    sections: changing(board.sections),
    serials: changing(board.serials),
    madeAt: changing(board.madeAt),
    makers: changing(board.makers),
  },
  columns: [...board.columns.values()].map(cells => ({
    cells,
    held: changing(cells.held),
    writtenAt: changing(cells.writtenAt),
    writtenBy: changing(cells.writtenBy),
  })),
})

const nobody: readonly string[] = []

function writeRow(draft: Draft, row: RowRead): void {
  const { board, own, columns } = draft
  const slot = slotFor(board, row.id)
  setThere(draft, slot, 1)
  own.orders.set(slot, row.order)
  own.names.set(slot, row.name)
  own.sections.set(slot, row.section === null ? nobody : [row.section])
  own.serials.set(slot, row.serial ?? Number.NaN)
  own.madeAt.set(slot, row.madeAt)
  own.makers.set(slot, [row.maker])
  for (const { cells, held, writtenAt, writtenBy } of columns) {
    const cell = row.cells[cells.form.id]
    held.set(slot, heldOf(cells.form, cell?.[0] ?? null))
    writtenAt.set(slot, cell?.[1] ?? Number.NaN)
    writtenBy.set(slot, cell === undefined ? nobody : [cell[2]])
  }
}

function finished({ board, isThere, own, columns }: Draft): BoardData {
  const { ids, slotOf } = board
  const size = ids.length
  const part = <V extends Vector>(of: Changing<V>): V => of.finished(size)
  return {
    ids,
    slotOf,
    size,
    isThere:
      isThere.length === size ? isThere : Uint8Array.from({ length: size }, (_, slot) => isThere[slot] ?? 0),
    orders: part(own.orders),
    names: part(own.names),
    sections: part(own.sections),
    serials: part(own.serials),
    madeAt: part(own.madeAt),
    makers: part(own.makers),
    columns: new Map(
      columns.map(({ cells, held, writtenAt, writtenBy }) => [
        cells.form.id,
        {
          form: cells.form,
          held: part(held),
          writtenAt: part(writtenAt),
          writtenBy: part(writtenBy),
        },
      ]),
    ),
  }
}

/** A column that may change: it is copied with the first cell that differs. */
interface Changing<V extends Vector> {
  readonly set: (slot: number, held: Held) => void
  /** For so many slots; the same object where nothing of it differs. */
  readonly finished: (size: number) => V
}

/** More than this is no few changes of a text any more. */
const slotsNoted = 10_000

function changing<V extends Vector>(before: V): Changing<V> {
  let own: V | undefined
  const slots: number[] = []
  return {
    set: (slot, held) => {
      if (own === undefined) {
        if (slot < sizeOf(before) && isHeldAlike(heldAt(before, slot), held)) return
        own = copyOf(before, Math.max(sizeOf(before), slot + 1))
      }
      // By half as much again: a board that is read grows row by row.
      if (slot >= sizeOf(own)) own = copyOf(own, Math.ceil((slot + 1) * 1.5))
      setHeld(own, slot, held)
      if (slots.length < slotsNoted) slots.push(slot)
    },
    finished: size => {
      if (own === undefined && sizeOf(before) === size) return before
      const next = fitting(own ?? before, size)
      if (slots.length < slotsNoted) noteChange(before, next, slots)
      return next
    },
  }
}

const fitting = <V extends Vector>(own: V, size: number): V =>
  sizeOf(own) > size ? cutTo(own, size) : sizeOf(own) === size ? own : copyOf(own, size)

/** Copied with the first row that comes or goes, and longer by half as much again where it is too short. */
function setThere(draft: Draft, slot: number, there: 0 | 1): void {
  const { board, isThere } = draft
  if (isThere[slot] === there) return
  if (slot >= isThere.length) {
    draft.isThere = new Uint8Array(Math.ceil((slot + 1) * 1.5))
    draft.isThere.set(isThere)
  } else if (isThere === board.isThere) draft.isThere = isThere.slice()
  draft.isThere[slot] = there
}

function slotFor({ ids, slotOf }: BoardData, id: string): number {
  const known = slotOf.get(id)
  if (known !== undefined) return known
  slotOf.set(id, ids.length)
  return ids.push(id) - 1
}

/** As a column holds a value; one that it cannot hold is none. */
export function heldOf(form: ColumnForm, value: CellValue): Held {
  const kind = kindOf(form)
  return value === null ? nothingIn(kind.form) : kind.hold(value, form.settings)
}

function isHeldAlike(a: Held, b: Held): boolean {
  if (typeof a !== 'object' || typeof b !== 'object') return Object.is(a, b)
  return a.length === b.length && a.every((each, index) => Object.is(each, b[index]))
}
