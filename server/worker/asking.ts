import { Worker } from 'node:worker_threads'
import type { Sides } from '#core/access/classes.ts'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { AccessIndex } from '#core/index/layout.ts'
import { type Asking, inControl, type Reply } from './message.ts'
import type { Answers, Kind, Question } from './question.ts'
import { packIndex } from './packed-index.ts'

/**
 * A thread for questions that would hold up everybody else's. It is started with the first of them, is asked one after
 * another, and works on numbered copies of the index that do not change under it.
 */
export interface Thread {
  worker: Worker | null
  nextId: number
  readonly waiting: Map<number, Waiting>
  /** The last index of each workspace that was sent: the thread has it. */
  readonly sent: Map<WorkspaceId, AccessIndex>
}

interface Waiting {
  readonly resolve: (answer: Answers[Kind]) => void
  readonly reject: (reason: unknown) => void
}

/** How somebody waits for an answer: told how far it is, and able to stop it. */
export interface Patience {
  readonly signal?: AbortSignal
  /** 0 to 1. */
  readonly onProgress?: (done: number) => void
}

/** Nobody waits for the answer any more. */
export class Stopped extends Error {}

export const createThread = (): Thread => ({ worker: null, nextId: 1, waiting: new Map(), sent: new Map() })

export interface AboutIndexes<K extends Kind> {
  readonly workspace: WorkspaceId
  readonly question: Extract<Question, { kind: K }>
  /** The same twice where it is about one. */
  readonly indexes: Sides<AccessIndex>
}

const lookEvery = 200

/** Throws `Stopped` once the signal says so. Holds the caller for as long as changed pages take to be copied. */
export async function ask<K extends Kind>(
  thread: Thread,
  { workspace, question, indexes: [was, is] }: AboutIndexes<K>,
  { signal, onProgress }: Patience = {},
): Promise<Answers[K]> {
  if (signal?.aborted === true) throw new Stopped()
  const worker = workerOf(thread)
  const id = thread.nextId++
  const control = new Int32Array(new SharedArrayBuffer(4 * inControl.length))
  const asking: Asking = {
    id,
    workspace,
    question,
    was: packIndex(was, thread.sent.get(workspace)),
    is: was === is ? null : packIndex(is, was),
    control,
  }
  thread.sent.set(workspace, was)
  const stop = () => Atomics.store(control, inControl.isStopped, 1)
  signal?.addEventListener('abort', stop)
  const looking =
    onProgress === undefined
      ? undefined
      : setInterval(() => onProgress(Atomics.load(control, inControl.permille) / 1000), lookEvery)
  try {
    return await new Promise<Answers[K]>((resolve, reject) => {
      thread.waiting.set(id, { resolve: resolve as Waiting['resolve'], reject })
      worker.postMessage(asking)
    })
  } finally {
    clearInterval(looking)
    signal?.removeEventListener('abort', stop)
  }
}

/** Starts it before it is asked: to begin a thread takes longer than to ask it. */
export const startThread = (thread: Thread): void => void workerOf(thread)

function workerOf(thread: Thread): Worker {
  if (thread.worker !== null) return thread.worker
  const worker = new Worker(new URL('./thread.mjs', import.meta.url))
  worker.on('message', (reply: Reply) => settle(thread, reply))
  worker.on('error', error => abandon(thread, error))
  // It does not keep the process alive by itself.
  worker.unref()
  thread.worker = worker
  return worker
}

function settle({ waiting }: Thread, reply: Reply): void {
  const own = waiting.get(reply.id)
  waiting.delete(reply.id)
  if ('answer' in reply) own?.resolve(reply.answer)
  else own?.reject('fault' in reply ? new Error(reply.fault) : new Stopped())
}

/** The thread is gone: whoever waits hears of it, and the next question starts another one. */
function abandon(thread: Thread, error: unknown): void {
  thread.worker = null
  thread.sent.clear()
  for (const { reject } of thread.waiting.values()) reject(error)
  thread.waiting.clear()
}

export async function endThread(thread: Thread): Promise<void> {
  await thread.worker?.terminate()
  abandon(thread, new Stopped())
}
