import { Worker } from 'node:worker_threads'

/** What the thread is told of a file: how far it is written by now; of the last, that this is all of it. */
interface Written {
  readonly id: number
  readonly path: string
  readonly bytes: number
  readonly isAll: boolean
}

/** What it answers to the last. */
interface Hashed {
  readonly id: number
  /** In hexadecimal digits; nothing where it could not be read. */
  readonly sha256?: string
}

/**
 * Reads files behind whoever writes them, in a thread: what was written a moment ago is in memory still, and the hash of a
 * file is there soon after its last byte without anybody else having waited for it.
 */
export interface Hasher {
  worker: Worker | null
  nextId: number
  readonly waiting: Map<number, (hashed: Hashed) => void>
}

export const createHasher = (): Hasher => ({ worker: null, nextId: 1, waiting: new Map() })

/** A file that is being hashed. */
export interface Hashing {
  /** So much of it is written by now. */
  readonly advance: (bytes: number) => void
  /** That is all of it. Resolves to its SHA-256 in hexadecimal digits; rejects where it cannot be read. */
  readonly finish: (bytes: number) => Promise<string>
}

export function hashing(hasher: Hasher, path: string): Hashing {
  const id = hasher.nextId++
  const send = (bytes: number, isAll: boolean) =>
    workerOf(hasher).postMessage({ id, path, bytes, isAll } satisfies Written)
  return {
    advance: bytes => send(bytes, false),
    finish: bytes =>
      new Promise((resolve, reject) => {
        hasher.waiting.set(id, ({ sha256 }) => {
          if (sha256 === undefined) reject(new Error(`${path} cannot be read`))
          else resolve(sha256)
        })
        // While somebody waits for it, it keeps the process alive.
        workerOf(hasher).ref()
        send(bytes, true)
      }),
  }
}

function workerOf(hasher: Hasher): Worker {
  if (hasher.worker !== null) return hasher.worker
  const worker = new Worker(new URL('./hash-thread.mjs', import.meta.url))
  worker.on('message', (hashed: Hashed) => {
    const waiting = hasher.waiting.get(hashed.id)
    hasher.waiting.delete(hashed.id)
    if (hasher.waiting.size === 0) worker.unref()
    waiting?.(hashed)
  })
  worker.on('error', () => abandon(hasher))
  worker.unref()
  hasher.worker = worker
  return worker
}

export async function endHasher(hasher: Hasher): Promise<void> {
  await hasher.worker?.terminate()
  abandon(hasher)
}

/** The thread is gone: whoever waits hears of it, and the next file starts another one. */
function abandon(hasher: Hasher): void {
  hasher.worker = null
  for (const [id, waiting] of hasher.waiting) waiting({ id })
  hasher.waiting.clear()
}
