import { parentPort } from 'node:worker_threads'
import {
  type BoardData,
  type CellStored,
  cellsRead,
  type ColumnRead,
  emptyBoard,
  type RowRead,
  withRows,
} from '#core/boards/data.ts'
import type { Usage } from '#core/boards/kind.ts'
import type { FromBoards, RawRow, ToBoards } from './message.ts'
import { usageFrom } from './plain-usage.ts'
import { answerOf } from './question.ts'

/** The boards that are looked at, one version of each: the next one comes as what differs from it. */
const boards = new Map<string, Board>()

interface Board {
  readonly columns: readonly ColumnRead[]
  readonly usage: Usage
  data: BoardData
  /** Rows that came since it was last asked about: they go into it at once, since each time costs a copy. */
  readonly coming: Map<string, RawRow | undefined>
}

parentPort?.on('message', (message: ToBoards) => {
  if ('ask' in message) parentPort?.postMessage(replyTo(message))
  else heed(message)
})

function heed(message: Exclude<ToBoards, { ask: number }>): void {
  const board = boards.get(message.board)
  if (message.tell === 'drop') boards.delete(message.board)
  else if (message.tell === 'begin') {
    const { columns, usage } = message
    const data = emptyBoard(columns.map(({ id, kind, settings }) => ({ id, kind, settings })))
    boards.set(message.board, { columns, usage: usageFrom(usage), data, coming: new Map() })
  } else if (board !== undefined) {
    for (const row of message.rows) board.coming.set(row[0], row)
    for (const id of message.gone) board.coming.set(id, undefined)
  }
}

function replyTo({ ask: id, board, question }: Extract<ToBoards, { ask: number }>): FromBoards {
  try {
    return { id, answer: answerOf(heldBoard(board), question) }
  } catch (error) {
    return { id, fault: error instanceof Error ? (error.stack ?? error.message) : String(error) }
  }
}

function heldBoard(id: string): BoardData {
  const board = boards.get(id)
  if (board === undefined) return emptyBoard([])
  const { coming } = board
  if (coming.size === 0) return board.data
  const gone = [...coming].flatMap(([row, raw]) => (raw === undefined ? [row] : []))
  board.data = withRows(board.data, { rows: rowsFrom(board), gone })
  coming.clear()
  return board.data
}

/** One after another: of a large board there is never more than one as it is read. */
function* rowsFrom({ columns, usage, coming }: Board): Generator<RowRead> {
  for (const raw of coming.values()) {
    if (raw === undefined) continue
    const [id, name, order, section, serial, madeAt, maker, text] = raw
    const stored = text === null ? {} : (JSON.parse(text) as Readonly<Record<string, CellStored>>)
    yield { id, name, order, section, serial, madeAt, maker, cells: cellsRead(columns, stored, usage) }
  }
}
