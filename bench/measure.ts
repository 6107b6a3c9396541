/** One figure: how long something took, beside the floor that was measured in the same run. */
export interface Figure {
  readonly what: string
  readonly milliseconds: number
  /** What the floor is, and how long that took. */
  readonly floor: { readonly what: string; readonly milliseconds: number }
}

/** The middle of several runs, after one that does not count. */
export async function timed(run: () => Promise<unknown>, times = 7): Promise<number> {
  await run()
  const taken: number[] = []
  for (let count = 0; count < times; count += 1) taken.push(await once(run))
  return taken.sort((a, b) => a - b)[Math.floor(times / 2)] ?? 0
}

export async function once(run: () => Promise<unknown>): Promise<number> {
  const began = performance.now()
  await run()
  return performance.now() - began
}

/** A table in CommonMark. */
export const tableOf = (figures: readonly Figure[]): string =>
  [
    '| | took | floor | ratio |',
    '|---|---:|---|---:|',
    ...figures.map(
      ({ what, milliseconds, floor }) =>
        `| ${what} | ${told(milliseconds)} | ${floor.what}, ${told(floor.milliseconds)} | ${(milliseconds / floor.milliseconds).toFixed(1)} |`,
    ),
  ].join('\n')

const told = (milliseconds: number) =>
  milliseconds >= 1000
    ? `${(milliseconds / 1000).toFixed(1)} s`
    : `${milliseconds.toFixed(milliseconds < 10 ? 1 : 0)} ms`
