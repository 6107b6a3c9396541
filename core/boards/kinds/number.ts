import { ok, refused } from '../../base/result.ts'
import { type ColumnKind, type FilterWord, isEmptyWord, isFilledWord } from '../kind.ts'
import { sums } from '../tallies.ts'

export const footChoices = ['sum', 'mean', 'least', 'greatest'] as const

export interface NumberSettings {
  /** How many figures stand behind the point. */
  readonly places: number
  readonly unit: string
  /** What the foot tells first. */
  readonly foot: (typeof footChoices)[number]
}

const unitLength = 20

function wrongSettings(settings: unknown): string | undefined {
  const { places, unit, foot, ...rest } = Object(settings) as Partial<NumberSettings>
  if (Object.keys(rest).length > 0) return 'A number has decimals, a unit and a total, and nothing else.'
  if (!Number.isInteger(places) || Number(places) < 0 || Number(places) > 6)
    return 'A number has 0 to 6 decimals.'
  if (typeof unit !== 'string' || unit.length > unitLength)
    return `A unit has ${unitLength} characters at most.`
  return footChoices.includes(foot as never)
    ? undefined
    : 'The total is a sum, a mean, the least or the greatest.'
}

const tests: Readonly<Record<string, (held: number, wanted: number) => boolean>> = {
  '=': (held, wanted) => held === wanted,
  '<': (held, wanted) => held < wanted,
  '≤': (held, wanted) => held <= wanted,
  '>': (held, wanted) => held > wanted,
  '≥': (held, wanted) => held >= wanted,
}

export const numberFilters: readonly FilterWord<number>[] = [
  ...Object.entries(tests).map(([word, test]): FilterWord<number> => ({
    word,
    takes: 'number',
    test: ([given = '']) => {
      const wanted = Number(given)
      return held => test(held, wanted)
    },
  })),
  {
    word: 'between',
    takes: 'two numbers',
    test: ([from = '', through = '']) => {
      const [least, greatest] = [Number(from), Number(through)]
      return held => held >= least && held <= greatest
    },
  },
]

export const number: ColumnKind<'number', NumberSettings> = {
  kind: 'number',
  version: 1,
  isWritten: true,
  form: 'number',
  settings: { plain: { places: 0, unit: '', foot: 'sum' }, wrong: wrongSettings },
  parse: (text, { places, unit }, { decimal }) => {
    const written = text.replaceAll(/[\s\u00a0\u202f'’]/gu, '').replace(unit.replaceAll(/\s/g, ''), '')
    if (written === '') return ok(null)
    const plain = plainNumber(written, decimal)
    if (plain === undefined) return refused('This is not a number.')
    const decimals = plain.split('.')[1]?.replace(/0+$/, '').length ?? 0
    if (decimals > places)
      return refused(places === 0 ? 'This column has whole numbers.' : `This column has ${places} decimals.`)
    const value = Number(plain) + 0
    return fits(value, places) ? ok(value) : refused('This number is too large.')
  },
  words: (value, { places }, { decimal }) => Number(value).toFixed(places).replace('.', decimal),
  fits: (value, { places }): value is number => fits(value, places),
  hold: Number,
  stored: held => (Number.isNaN(held) ? null : held),
  orderOf: held => held,
  filters: [...numberFilters, isEmptyWord, isFilledWord],
  totals: (vector, slots, { places }) => sums(vector, slots, 10 ** places),
}

/** Every figure of it counts: it stands for a whole number of its last decimal. */
function fits(value: unknown, places: number): boolean {
  if (typeof value !== 'number' || Object.is(value, -0)) return false
  const whole = Math.round(value * 10 ** places)
  return Number.isSafeInteger(whole) && whole / 10 ** places === value
}

/**
 * With a point and nothing else. Where both signs stand in it, the last one is before the decimals; where one stands more
 * than once, it parts thousands; where it stands once, before three figures, it is what is usual there.
 */
function plainNumber(written: string, decimal: '.' | ','): string | undefined {
  const last = Math.max(written.lastIndexOf('.'), written.lastIndexOf(','))
  const sign = last === -1 ? decimal : (written[last] as '.' | ',')
  const other = sign === '.' ? ',' : '.'
  const isOnce = written.indexOf(sign) === last
  const isParted = /^[-+−]?[1-9]\d{0,2}([.,])\d{3}(\1\d{3})*$/u.test(written)
  const isOfThousands = isParted && (!isOnce || (sign !== decimal && !written.includes(other)))
  const plain = isOfThousands
    ? written.replaceAll(sign, '')
    : withoutThousands(written, other, last).replace(sign, '.')
  const signed = plain.replace('−', '-').replace('+', '')
  return /^-?(\d+(\.\d*)?|\.\d+)$/.test(signed) ? signed : undefined
}

const withoutThousands = (written: string, sign: string, until: number): string =>
  written.includes(sign) && /^[-+−]?\d{1,3}([.,]\d{3})*$/u.test(written.slice(0, until))
    ? written.replaceAll(sign, '')
    : written
