import { Worker } from 'node:worker_threads'
import type { FromBoards, RawRow, ToBoards } from './message.ts'
import type { BoardAnswers, BoardQuestion, BoardQuestionKind } from './question.ts'

/**
 * The thread that holds boards: to filter and sort a hundred thousand rows would hold up everybody else. It is started
 * with the first board, and told of each what it does not know yet.
 */
export interface BoardThread {
  worker: Worker | null
  nextId: number
  readonly waiting: Map<number, Waiting>
  /** Called when the thread is gone, with all that it held. */
  onGone: () => void
}

interface Waiting {
  readonly resolve: (answer: BoardAnswers[BoardQuestionKind]) => void
  readonly reject: (reason: unknown) => void
}

export const createBoardThread = (): BoardThread => ({
  worker: null,
  nextId: 1,
  waiting: new Map(),
  onGone: () => {},
})

export const beginBoard = (
  thread: BoardThread,
  board: string,
  how: Omit<Extract<ToBoards, { tell: 'begin' }>, 'tell' | 'board'>,
): void => send(thread, { tell: 'begin', board, ...how })

interface Rows {
  readonly rows: readonly RawRow[]
  readonly gone: readonly string[]
}

export const tellRows = (thread: BoardThread, board: string, { rows, gone }: Rows): void =>
  send(thread, { tell: 'rows', board, rows, gone })

export const dropBoard = (thread: BoardThread, board: string): void => send(thread, { tell: 'drop', board })

export function askBoard<K extends BoardQuestionKind>(
  thread: BoardThread,
  board: string,
  question: Extract<BoardQuestion, { kind: K }>,
): Promise<BoardAnswers[K]> {
  const ask = thread.nextId++
  return new Promise((resolve, reject) => {
    thread.waiting.set(ask, { resolve: resolve as Waiting['resolve'], reject })
    send(thread, { ask, board, question })
  })
}

const send = (thread: BoardThread, message: ToBoards): void => workerOf(thread).postMessage(message)

function workerOf(thread: BoardThread): Worker {
  if (thread.worker !== null) return thread.worker
  const worker = new Worker(new URL('./thread.mjs', import.meta.url))
  worker.on('message', (reply: FromBoards) => {
    const own = thread.waiting.get(reply.id)
    thread.waiting.delete(reply.id)
    if ('answer' in reply) own?.resolve(reply.answer)
    else own?.reject(new Error(reply.fault))
  })
  worker.on('error', error => abandon(thread, error))
  // It does not keep the process alive by itself.
  worker.unref()
  thread.worker = worker
  return worker
}

/** The thread is gone: whoever waits hears of it, and the next one is told all anew. */
function abandon(thread: BoardThread, error: unknown): void {
  thread.worker = null
  for (const { reject } of thread.waiting.values()) reject(error)
  thread.waiting.clear()
  thread.onGone()
}

export async function endBoardThread(thread: BoardThread): Promise<void> {
  await thread.worker?.terminate()
  abandon(thread, new Error('the server stops'))
}
