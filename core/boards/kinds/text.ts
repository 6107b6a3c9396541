import { ok, refused, type Result } from '../../base/result.ts'
import { fold } from '../../base/fold-words.ts'
import {
  type CellValue,
  type ColumnKind,
  type FilterWord,
  isEmptyWord,
  isFilledWord,
  type KindName,
} from '../kind.ts'
import { countTexts } from '../tallies.ts'
import { orderedText } from '../words.ts'

/** Nothing is to be settled. */
export type NoSettings = Readonly<Record<string, never>>

export const noSettings = {
  plain: {} as NoSettings,
  wrong: (settings: unknown) =>
    typeof settings === 'object' && Object.keys(Object(settings) as object).length === 0
      ? undefined
      : 'A column of this kind has no settings.',
}

export const textFilters: readonly FilterWord<string>[] = [
  {
    word: 'contains',
    takes: 'text',
    test: ([given = '']) => {
      const wanted = fold(given)
      return held => fold(held).includes(wanted)
    },
  },
  {
    word: 'does not contain',
    takes: 'text',
    test: ([given = '']) => {
      const wanted = fold(given)
      return held => !fold(held).includes(wanted)
    },
  },
  isEmptyWord,
  isFilledWord,
]

interface Texts {
  readonly kind: KindName
  readonly longest: number
  readonly read: (text: string) => string
  readonly filters: readonly FilterWord<string>[]
}

/** Texts are held as they are stored. */
export const textKind = ({ kind, longest, read, filters }: Texts): ColumnKind<'text', NoSettings> => ({
  kind,
  version: 1,
  isWritten: true,
  form: 'text',
  settings: noSettings,
  parse: (text): Result<CellValue, string> => {
    const written = read(text)
    if (written.length > longest)
      return refused(`This text is longer than ${longest.toLocaleString('en')} characters.`)
    return ok(written === '' ? null : written)
  },
  words: value => String(value),
  fits: (value): value is string =>
    typeof value === 'string' && value !== '' && read(value) === value && value.length <= longest,
  hold: value => String(value),
  stored: held => (held === '' ? null : held),
  orderOf: held => orderedText(held.slice(0, 200)),
  filters,
  totals: countTexts,
})

/** Control characters are no text; a tab is a space where there is one line. */
const inOneLine = (text: string): string => text.replaceAll(/[\p{Cc}\u2028\u2029]+/gu, ' ').trim()

const is: FilterWord<string> = {
  word: 'is',
  takes: 'text',
  test: ([given = '']) => {
    const wanted = fold(given.trim())
    return held => fold(held) === wanted
  },
}

export const text = textKind({ kind: 'text', longest: 2000, read: inOneLine, filters: [is, ...textFilters] })
