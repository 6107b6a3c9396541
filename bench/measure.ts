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

/** One figure of what was measured on a workspace of a size. */
export type Reading = { readonly what: string; readonly size: string } & (
  { readonly milliseconds: number; readonly floor: Figure['floor'] } | { readonly mebibytes: number }
)

/** The middle of many runs that do not wait. */
export function middleOf(times: number, run: () => unknown): number {
  const taken = Array.from({ length: times }, () => {
    const began = performance.now()
    run()
    return performance.now() - began
  })
  return taken.sort((a, b) => a - b)[Math.floor(times / 2)] ?? 0
}

/** The sizes side by side: what each took, and how many times the floor that is. */
export function tableOfSizes(readings: readonly Reading[]): string {
  const sizes = [...new Set(readings.map(each => each.size))]
  const rows = [...new Set(readings.map(each => each.what))].map(what => {
    const cells = sizes.map(size => readings.find(each => each.what === what && each.size === size))
    return `| ${what} | ${cells.map(cellOf).join(' | ')} |`
  })
  return [`| | ${sizes.join(' | ')} |`, `|---|${'---:|'.repeat(sizes.length)}`, ...rows].join('\n')
}

function cellOf(reading: Reading | undefined): string {
  if (reading === undefined) return ''
  if ('mebibytes' in reading) return `${reading.mebibytes.toFixed(1)} MiB`
  return `${finely(reading.milliseconds)}, × ${(reading.milliseconds / reading.floor.milliseconds).toPrecision(2)}`
}

const finely = (milliseconds: number) =>
  milliseconds >= 1 ? told(milliseconds) : `${(milliseconds * 1000).toFixed(milliseconds < 0.01 ? 2 : 0)} µs`
