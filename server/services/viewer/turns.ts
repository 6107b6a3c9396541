import { setImmediate } from 'node:timers/promises'
import type { DiffQuery } from '#core/access/access-diff.ts'
import type { BulkAnswer } from '#core/access/bulk-answer.ts'
import type { PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Breath, Steps } from '#core/changes/steps.ts'
import { turnLength } from '../../breath.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { ask, type Patience, Stopped } from '../../worker/asking.ts'

/**
 * Long work that needs whole workspaces and so cannot leave this thread is done in turns: everybody else is let in
 * after each. Of those that last one goes on at a time, the others wait for it in the order in which they came: together
 * they would hold others up as none does by itself.
 */
export interface Turns {
  last: Promise<unknown>
  /** By who has something worked out, how many of their works there are. */
  readonly going: Map<PersonId, number>
}

export const createTurns = (): Turns => ({ last: Promise.resolve(), going: new Map() })

/**
 * Up to so many milliseconds a work is an everyday one, if on a slow machine: it waits for no other, and in the end it
 * may be done while others wait.
 */
const shortWork = 100
/** So long one work may take of this thread in all. */
const worksAtMost = 60_000
/** So many works of one person go on or wait: of those that write or preview, and of those that only read. */
const worksAtOnce = 2
export const readsAtOnce = 20

/** What works in turns is handed this. */
export interface Turn {
  /** Lets others in, if it is time for that. */
  readonly breathe: () => Promise<void> | undefined
  readonly run: <T>(steps: Steps<T>) => Promise<T>
  /** Whether it has taken so long that it may not be done while others wait. */
  readonly isLong: () => boolean
}

interface Working {
  readonly asker: { readonly workspace: WorkspaceId; readonly person: PersonId }
  readonly patience: Patience
  /** Unless it is said, as many as of works that write. */
  readonly atOnce?: number
}

/** Throws `Stopped` where nobody waits for it any more. */
export async function inTurns<T>(
  { thread, turns }: Parts,
  { asker: { workspace, person }, patience: { signal, onProgress }, atOnce = worksAtOnce }: Working,
  work: (turn: Turn) => Promise<T>,
): Promise<T> {
  let until = performance.now() + turnLength
  let leave: (() => void) | undefined
  let worked = 0
  const isLong = () => worked > shortWork
  const goOn = () => {
    if (signal?.aborted === true) throw new Stopped()
    until = performance.now() + turnLength
  }
  const pause = async () => {
    worked += turnLength
    if (isLong()) leave ??= await enter(turns, person, atOnce)
    if (worked > worksAtMost) throw problemOf('takes-too-long')
    await setImmediate()
    goOn()
  }
  const answerTo = async ({ sides: [was, is], ...query }: DiffQuery) => {
    await pause()
    const { starts, people, isWeb, asker, mostRows } = query
    const question = { kind: 'diff', time: is.time, starts, people, isWeb, asker, mostRows } as const
    const indexes = [was.index, is.index] as const
    const patience = signal === undefined ? {} : { signal }
    const answer = await ask<'diff'>(thread, { workspace, question, indexes }, patience)
    goOn()
    return answer
  }
  const tell = tellingNowAndThen(onProgress)
  const run = async <R>(steps: Steps<R>): Promise<R> => {
    for (let answer: BulkAnswer | undefined; ;) {
      const step = stepUntil(steps, { answer, until })
      if (step.done === true) return step.value
      answer = undefined
      if (typeof step.value !== 'number') answer = await answerTo(step.value)
      else {
        tell(step.value)
        await pause()
      }
    }
  }
  const breathe = () => (performance.now() < until ? undefined : pause())
  try {
    return await work({ breathe, run, isLong })
  } finally {
    leave?.()
  }
}

/** Goes on until it is time to let others in, or a question is asked. */
function stepUntil<T>(
  steps: Steps<T>,
  { answer, until }: { readonly answer: BulkAnswer | undefined; readonly until: number },
): IteratorResult<Breath, T> {
  let step = steps.next(answer)
  while (step.done !== true && typeof step.value === 'number' && performance.now() < until)
    step = steps.next()
  return step
}

/** What ends within one turn and asks no question; `undefined` for what does not. */
export function ifShort<T>(steps: Steps<T>): { readonly value: T } | undefined {
  const step = stepUntil(steps, { answer: undefined, until: performance.now() + turnLength })
  return step.done === true ? { value: step.value } : undefined
}

const tellEvery = 200

function tellingNowAndThen(onProgress: Patience['onProgress']): (done: number) => void {
  let last = performance.now()
  let most = 0
  return done => {
    most = Math.max(most, done)
    if (onProgress === undefined || performance.now() < last + tellEvery) return
    last = performance.now()
    onProgress(most)
  }
}

/** Resolves when it is one's turn, with what lets the next one in. */
async function enter(turns: Turns, person: PersonId, atOnce: number): Promise<() => void> {
  const going = turns.going.get(person) ?? 0
  if (going >= atOnce) throw problemOf('busy-with-yours')
  turns.going.set(person, going + 1)
  const before = turns.last
  let open = () => {}
  turns.last = new Promise<void>(resolve => (open = resolve))
  await before
  return () => {
    const left = (turns.going.get(person) ?? 1) - 1
    if (left === 0) turns.going.delete(person)
    else turns.going.set(person, left)
    open()
  }
}
