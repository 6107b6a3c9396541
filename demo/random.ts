/** Numbers that look random and are the same each time: a counter put through a mixing function (mulberry32). */
export interface Random {
  /** From 0 up to, but without, `below`. */
  readonly whole: (below: number) => number
  /** One of some; throws if there is none. */
  readonly one: <T>(of: readonly T[]) => T
  readonly chance: (outOf: number) => boolean
}

export function createRandom(seed: number): Random {
  let counter = seed >>> 0
  const next = () => {
    counter = (counter + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(counter ^ (counter >>> 15), counter | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296
  }
  const whole = (below: number) => Math.floor(next() * below)
  const one = <T>(of: readonly T[]): T => {
    if (of.length === 0) throw new Error('nothing to choose from')
    return of[whole(of.length)] as T
  }
  return { whole, one, chance: outOf => whole(outOf) === 0 }
}
