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

/** One figure of what was measured on a workspace of a size; a floor is of the same unit. */
export interface Reading {
  readonly what: string
  readonly size: string
  readonly unit: 'ms' | 'MiB' | 'a second'
  readonly value: number
  readonly floor?: { readonly what: string; readonly value: number }
}

/** The middle of many runs that do not wait. */
export const middleOf = (times: number, run: () => unknown): number =>
  middle(
    Array.from({ length: times }, () => {
      const began = performance.now()
      run()
      return performance.now() - began
    }),
  )

export const middle = (values: readonly number[]): number =>
  values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0

/** The sizes side by side: what each came to, and how many times its floor that is. */
export function tableOfSizes(readings: readonly Reading[]): string {
  const sizes = [...new Set(readings.map(each => each.size))]
  const rows = [...new Set(readings.map(each => each.what))].map(what => {
    const alike = readings.filter(each => each.what === what)
    const cells = sizes.map(size => cellOf(alike.find(each => each.size === size)))
    return `| ${what} | ${cells.join(' | ')} | ${alike[0]?.floor?.what ?? ''} |`
  })
  return [`| | ${sizes.join(' | ')} | floor |`, `|---|${'---:|'.repeat(sizes.length)}---|`, ...rows].join(
    '\n',
  )
}

function cellOf(reading: Reading | undefined): string {
  if (reading === undefined) return ''
  const { value, floor } = reading
  if (floor === undefined) return inWords(reading)
  const ratio = Number((value / floor.value).toPrecision(2)).toLocaleString('en')
  return `${inWords(reading)}, × ${ratio}`
}

function inWords({ unit, value }: Reading): string {
  if (unit === 'MiB') return `${value.toFixed(1)} MiB`
  if (unit === 'a second') return `${Math.round(value)} a second`
  return value >= 1 ? told(value) : `${(value * 1000).toFixed(value < 0.01 ? 2 : 0)} µs`
}
