import { type FigureId, figureOf } from './figures.ts'

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

/** One figure of what was measured, on a workspace of a size where there are several; a floor is of the same unit. */
export interface Reading {
  readonly id: FigureId
  readonly size: string
  readonly unit: 'ms' | 'MiB' | 'kB' | 'bytes' | 'a second'
  readonly value: number
  readonly floor?: Floor
}

export interface Floor {
  readonly what: string
  readonly value: number
}

/** Figures of one kind of workspace, each with its floor. */
export const readingsOn =
  (size: string) =>
  (id: FigureId, value: number, floor: Floor): Reading => ({ id, size, unit: 'ms', value, floor })

const ratioOf = ({ value, floor }: Reading): number | null =>
  floor === undefined ? null : value / floor.value

/** As a script reads it: `met` is `null` where nothing was aimed at. */
export function asData(reading: Reading) {
  const { id, size, unit, value, floor } = reading
  const { what, aim = null } = figureOf(id)
  return {
    id: `${id}@${size}`,
    what,
    value,
    unit,
    floor: floor?.value ?? null,
    ratio: ratioOf(reading),
    aim,
    met: isMet(reading),
  }
}

function isMet(reading: Reading): boolean | null {
  const { aim } = figureOf(reading.id)
  if (aim === undefined) return null
  const is = aim.of === 'value' ? reading.value : (ratioOf(reading) ?? Number.NaN)
  return is <= (aim.atMost ?? Infinity) && is >= (aim.atLeast ?? -Infinity)
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

/** The sizes side by side: what each came to, and how many times its floor that is. What falls short is said first. */
export function tableOf(readings: readonly Reading[]): string {
  const sizes = [...new Set(readings.map(each => each.size))]
  const rows = [...new Set(readings.map(each => each.id))].map(id => {
    const alike = readings.filter(each => each.id === id)
    const cells = sizes.map(size => cellOf(alike.find(each => each.size === size)))
    return `| ${figureOf(id).what} | ${cells.join(' | ')} | ${alike[0]?.floor?.what ?? ''} | ${aimWords(id)} |`
  })
  const short = readings.filter(each => isMet(each) === false)
  return [
    ...short.map(
      each =>
        `Falls short (${each.size}): ${figureOf(each.id).what}, ${cellOf(each)}; aim ${aimWords(each.id)}`,
    ),
    ...(short.length === 0 ? [] : ['']),
    `| | ${sizes.join(' | ')} | floor | aim |`,
    `|---|${'---:|'.repeat(sizes.length)}---|---|`,
    ...rows,
  ].join('\n')
}

function aimWords(id: FigureId): string {
  const { aim } = figureOf(id)
  if (aim === undefined) return ''
  const bound = aim.atMost === undefined ? `≥ ${aim.atLeast}` : `≤ ${aim.atMost}`
  return aim.of === 'ratio' ? `× ${bound}` : bound
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
  if (unit === 'bytes') return `${Math.round(value)} bytes`
  if (unit === 'kB') return `${Math.round(value)} kB`
  if (unit === 'a second') return `${Math.round(value)} a second`
  return value >= 1 ? told(value) : `${(value * 1000).toFixed(value < 0.01 ? 2 : 0)} µs`
}

export const told = (milliseconds: number): string =>
  milliseconds >= 1000
    ? `${(milliseconds / 1000).toFixed(1)} s`
    : `${milliseconds.toFixed(milliseconds < 10 ? 1 : 0)} ms`
