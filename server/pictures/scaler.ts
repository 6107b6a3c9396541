import { type ChildProcess, fork } from 'node:child_process'
import { once } from 'node:events'
import { problemOf } from '../problem-error.ts'

/** Reads pictures one after another in a process beside this one, which is begun with the first and let go when idle. */
export interface Scaler {
  child: ChildProcess | null
  last: Promise<unknown>
  waiting: number
  nextId: number
  idle: NodeJS.Timeout | null
}

export const createScaler = (): Scaler => ({
  child: null,
  last: Promise.resolve(),
  waiting: 0,
  nextId: 1,
  idle: null,
})

const waitingAtMost = 20
const longest = 10_000
const idleFor = 60_000

/** The picture cut square and scaled down, as WebP; nothing where it cannot be read, is too large or takes too long. */
export async function scale(scaler: Scaler, bytes: Buffer): Promise<Buffer | undefined> {
  if (scaler.waiting >= waitingAtMost) throw problemOf('many-pictures')
  scaler.waiting += 1
  const scaled = scaler.last.then(() => scaledBy(scaler, bytes))
  scaler.last = scaled.catch(() => undefined)
  try {
    return await scaled
  } finally {
    scaler.waiting -= 1
  }
}

interface Scaled {
  readonly id: number
  readonly data?: Uint8Array
}

async function scaledBy(scaler: Scaler, bytes: Buffer): Promise<Buffer | undefined> {
  const child = childOf(scaler)
  const id = scaler.nextId++
  const giveUp = AbortSignal.timeout(longest)
  try {
    child.send({ id, bytes })
    const [answer] = (await Promise.race([
      once(child, 'message', { signal: giveUp }),
      once(child, 'exit', { signal: giveUp }).then(() => [{ id }]),
    ])) as [Scaled]
    return answer.data === undefined ? undefined : Buffer.from(answer.data)
  } catch {
    // What holds it, the next picture does not wait for.
    endScaler(scaler)
    return undefined
  }
}

function childOf(scaler: Scaler): ChildProcess {
  if (scaler.idle !== null) clearTimeout(scaler.idle)
  scaler.idle = setTimeout(() => endScaler(scaler), idleFor).unref()
  if (scaler.child?.connected === true) return scaler.child
  // It gets no more of this process's surroundings than it needs to be found.
  const env = { PATH: process.env['PATH'] ?? '' }
  const child = fork(new URL('./child.mjs', import.meta.url), {
    serialization: 'advanced',
    stdio: 'ignore',
    execArgv: [],
    env,
  })
  child.unref()
  child.channel?.unref()
  scaler.child = child
  return child
}

export function endScaler(scaler: Scaler): void {
  if (scaler.idle !== null) clearTimeout(scaler.idle)
  scaler.child?.kill('SIGKILL')
  scaler.child = null
}
