import { type ChildProcess, fork } from 'node:child_process'
import { once } from 'node:events'
import { readFile } from 'node:fs/promises'
import { setTimeout as after } from 'node:timers/promises'
import { problemOf } from '../problem-error.ts'
import type { Job, Rendered } from './job.ts'

/**
 * Has files and pictures that people send read in processes beside this one: bytes that nobody here vouches for. Such a
 * process is begun when it is needed and let go when idle, is ended where it takes too long or too much memory, and takes
 * the jobs of different people in turns, so that nobody's many hold up somebody else's one.
 */
export interface Renderer {
  readonly waiting: Map<string, Waiting[]>
  readonly seats: readonly Seat[]
  nextId: number
}

interface Waiting {
  readonly job: Job
  readonly resolve: (rendered: Rendered) => void
}

interface Seat {
  child: ChildProcess | null
  isBusy: boolean
  idle: NodeJS.Timeout | null
}

const processes = 2
/** So many jobs of one person wait. */
const waitingAtMost = 60
const longest = 10_000
const idleFor = 60_000
/** Bytes that a process may hold, and how often that is looked at, in milliseconds. */
const memoryAtMost = 1.5 * 1024 ** 3
const lookEvery = 200

export const createRenderer = (): Renderer => ({
  waiting: new Map(),
  seats: Array.from({ length: processes }, () => ({ child: null, isBusy: false, idle: null })),
  nextId: 1,
})

/** Resolves also where it cannot be read: then it says why. Throws the problem of too many at once. */
export function render(renderer: Renderer, owner: string, job: Job): Promise<Rendered> {
  const queue = renderer.waiting.get(owner) ?? []
  if (queue.length >= waitingAtMost) return Promise.reject(problemOf('many-previews'))
  return new Promise(resolve => {
    queue.push({ job, resolve })
    renderer.waiting.set(owner, queue)
    for (const seat of renderer.seats) void work(renderer, seat)
  })
}

async function work(renderer: Renderer, seat: Seat): Promise<void> {
  if (seat.isBusy) return
  seat.isBusy = true
  for (let next = take(renderer); next !== undefined; next = take(renderer))
    next.resolve(await renderedBy(seat, next.job, renderer.nextId++))
  seat.isBusy = false
}

/** The first of whoever has waited longest since their last one. */
function take({ waiting }: Renderer): Waiting | undefined {
  const [owner] = waiting.keys()
  if (owner === undefined) return undefined
  const [first, ...rest] = waiting.get(owner) ?? []
  waiting.delete(owner)
  if (rest.length > 0) waiting.set(owner, rest)
  return first
}

async function renderedBy(seat: Seat, job: Job, id: number): Promise<Rendered> {
  const child = childOf(seat)
  const over = new AbortController()
  const giveUp = AbortSignal.any([AbortSignal.timeout(longest), over.signal])
  try {
    child.send({ id, ...job })
    const [answer] = (await Promise.race([
      once(child, 'message', { signal: giveUp }),
      once(child, 'exit', { signal: giveUp }).then(() => [{ fault: 'broken' }]),
      outgrown(child, giveUp).then(() => [{ fault: 'too-large' }]),
    ])) as [Rendered]
    if (answer.fault === 'too-large') endChild(seat)
    return answer
  } catch {
    // What holds it, the next one does not wait for.
    endChild(seat)
    return { fault: 'takes-too-long' }
  } finally {
    over.abort()
  }
}

/** Resolves once a process holds more than it may. Where the system does not tell, the limits of what it reads have to do. */
async function outgrown({ pid = 0 }: ChildProcess, signal: AbortSignal): Promise<void> {
  for (;;) {
    await after(lookEvery, undefined, { signal })
    const [, pages = '0'] = (await readFile(`/proc/${pid}/statm`, 'utf8').catch(() => '')).split(' ')
    if (Number(pages) * 4096 > memoryAtMost) return
  }
}

function childOf(seat: Seat): ChildProcess {
  if (seat.idle !== null) clearTimeout(seat.idle)
  seat.idle = setTimeout(() => endChild(seat), idleFor).unref()
  if (seat.child?.connected === true) return seat.child
  // It gets no more of this process's surroundings than it needs to be found.
  const env = { PATH: process.env['PATH'] ?? '' }
  const child = fork(new URL('./child.mjs', import.meta.url), {
    serialization: 'advanced',
    stdio: 'ignore',
    execArgv: ['--max-old-space-size=512'],
    env,
  })
  child.unref()
  child.channel?.unref()
  seat.child = child
  return child
}

function endChild(seat: Seat): void {
  if (seat.idle !== null) clearTimeout(seat.idle)
  seat.child?.kill('SIGKILL')
  seat.child = null
}

export function endRenderer({ seats }: Renderer): void {
  for (const seat of seats) endChild(seat)
}
