import { setImmediate } from 'node:timers/promises'

/** In milliseconds: so long one works before others have their turn. */
export const turnLength = 8

/** What lets others in, if it is time for that: to be awaited now and then by what may take long. */
export function createBreath(): () => Promise<void> | undefined {
  let until = performance.now() + turnLength
  return () => {
    if (performance.now() < until) return undefined
    return setImmediate().then(() => {
      until = performance.now() + turnLength
    })
  }
}

/** A list as JSON. */
export async function jsonOf(list: readonly unknown[]): Promise<string> {
  const breathe = createBreath()
  const parts: string[] = []
  for (let from = 0; from < list.length; from += partLength) {
    await breathe()
    parts.push(JSON.stringify(list.slice(from, from + partLength)).slice(1, -1))
  }
  return `[${parts.join(',')}]`
}

const partLength = 500
