import type { Parts } from '../parts.ts'
import { problemOf } from '../problem-error.ts'

/** So many wrong tries in a row are anybody's; after them each one has to wait, twice as long each time. */
const freeTries = 5
const longestWait = 15 * 60_000
/** Past this many remembered tries the oldest are forgotten. */
const remembered = 10_000

/**
 * Guessing is slowed for what is guessed at, wherever it comes from: a password or a code of one address,
 * whether somebody has that address or not. Throws while one has to wait.
 */
export function holdBack({ misses, clock }: Parts, what: string): void {
  const missed = misses.get(what)
  if (missed === undefined || missed.count < freeTries) return
  const wait = Math.min(2 ** (missed.count - freeTries) * 10_000, longestWait)
  if (clock() < missed.at + wait) throw problemOf('too-slow-down')
}

export function noteMiss({ misses, clock }: Parts, what: string): void {
  const count = (misses.get(what)?.count ?? 0) + 1
  misses.delete(what)
  misses.set(what, { count, at: clock() })
  const [oldest] = misses.keys()
  if (misses.size > remembered && oldest !== undefined) misses.delete(oldest)
}

export const forgetMisses = ({ misses }: Parts, what: string): void => void misses.delete(what)
