import type { BoardData, CellsOf } from './data.ts'
import type { ColumnForm } from './kind.ts'
import { copyOf, emptyVector, heldAt, setHeld, type VectorOf } from './vectors.ts'
import { nameColumn } from './view.ts'

export interface Written {
  readonly held: VectorOf<'number'>
  readonly by: VectorOf<'list'>
}

interface Known {
  /** What it was worked out from. */
  readonly from: readonly VectorOf<'number'>[]
  readonly written: Written
}

/** The last ones of each board, by what is seen of it: the next one differs in few rows. */
const known = new WeakMap<BoardData['slotOf'], Map<string, Known>>()

/**
 * When each row was written last, of what one sees of it, and by whom: when it was made, where it never was. Costs a look
 * at each row for each column in which something was written since it was asked for last.
 */
export function lastWritten(board: BoardData, columns: readonly ColumnForm[]): Written {
  const seen = [nameColumn, ...columns.map(each => each.id)].flatMap(id => board.columns.get(id) ?? [])
  const key = seen.map(each => each.form.id).join(' ')
  const ofBoard = known.get(board.slotOf) ?? new Map<string, Known>()
  known.set(board.slotOf, ofBoard)
  const before = ofBoard.get(key)
  const from = [board.madeAt, ...seen.map(each => each.writtenAt)]
  if (before !== undefined && from.every((each, nth) => each === before.from[nth])) return before.written
  const written = writtenFrom(board, seen, { before, from })
  ofBoard.set(key, { from, written })
  return written
}

interface Compared {
  readonly before: Known | undefined
  readonly from: Known['from']
}

function writtenFrom(board: BoardData, seen: readonly CellsOf[], { before, from }: Compared): Written {
  const { size, madeAt, makers } = board
  const held = before === undefined ? emptyVector('number', size) : copyOf(before.written.held, size)
  const by = before === undefined ? emptyVector('list', size) : copyOf(before.written.by, size)
  const isOther = otherSlots(size, { before, from })
  for (let slot = 0; slot < size; slot += 1) {
    if (isOther[slot] !== 1) continue
    let [at, writers] = [madeAt.numbers[slot] as number, makers]
    for (const { writtenAt, writtenBy } of seen)
      if ((writtenAt.numbers[slot] as number) > at)
        [at, writers] = [writtenAt.numbers[slot] as number, writtenBy]
    setHeld(held, slot, at)
    setHeld(by, slot, heldAt(writers, slot))
  }
  return { held, by }
}

/** 1 where something was written, or a row came. */
function otherSlots(size: number, { before, from }: Compared): Uint8Array {
  const sizeBefore = before?.written.held.numbers.length ?? 0
  const isOther = new Uint8Array(size).fill(1, sizeBefore)
  for (const [nth, { numbers }] of from.entries()) {
    const was = before?.from[nth]?.numbers
    if (was === undefined || was === numbers) continue
    for (let slot = 0; slot < sizeBefore; slot += 1)
      if (!Object.is(was[slot], numbers[slot])) isOther[slot] = 1
  }
  return isOther
}
