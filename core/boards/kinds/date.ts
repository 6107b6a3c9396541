import { ok, refused } from '../../base/result.ts'
import { dayFrom, dayLength, readDay, writtenDay, writtenTime } from '../days.ts'
import {
  type Asking,
  type ColumnKind,
  type FilterWord,
  isEmptyWord,
  isFilledWord,
  type Usage,
} from '../kind.ts'
import { extremes } from '../tallies.ts'

export interface DateSettings {
  readonly withTime: boolean
}

/** From the year 1 to 9999. */
const isInstant = (value: unknown): boolean =>
  Number.isSafeInteger(value) && Number(value) >= -62_135_596_800_000 && Number(value) <= 253_402_300_799_999

/** What spreadsheets write behind a day that has no time. */
const withoutMidnight = (text: string): string => text.trim().replace(/[ T]00:00(:00(\.0+)?)?$/, '')

export function instantFrom(text: string, usage: Usage): number | undefined {
  const match = /^(.*?)[ T,]+(\d{1,2})[:.](\d{2})(?::(\d{2}))?$/.exec(text.trim())
  const day = dayFrom(match?.[1] ?? text, usage)
  if (day === undefined) return undefined
  const [hours, minutes] = [Number(match?.[2] ?? 0), Number(match?.[3] ?? 0)]
  if (hours > 23 || minutes > 59) return undefined
  return usage.instantOf(day * dayLength + (hours * 60 + minutes) * 60_000)
}

export const writtenInstant = (instant: number, { localOf }: Usage): string => writtenTime(localOf(instant))

/** 2026-12; nothing for no day. */
export const monthOf = (day: number): string => (Number.isNaN(day) ? '' : writtenDay(day).slice(0, 7))

interface DayWord {
  readonly word: string
  readonly takes: 'day' | 'two days' | 'count' | 'nothing'
  /** From which day on, and from which on no more. */
  readonly days: (given: readonly string[], today: number) => readonly [from: number, behind: number]
}

const within =
  (from: number, behind: number) =>
  (held: number): boolean =>
    held >= from && held < behind

const day = (written: string | undefined): number => readDay(written ?? '') ?? Number.NaN

const dayWords: readonly DayWord[] = [
  { word: 'on', takes: 'day', days: ([given]) => [day(given), day(given) + 1] },
  { word: 'before', takes: 'day', days: ([given]) => [Number.NEGATIVE_INFINITY, day(given)] },
  { word: 'after', takes: 'day', days: ([given]) => [day(given) + 1, Number.POSITIVE_INFINITY] },
  { word: 'between', takes: 'two days', days: ([from, through]) => [day(from), day(through) + 1] },
  { word: 'in the next days', takes: 'count', days: ([count], today) => [today, today + Number(count) + 1] },
  { word: 'in the last days', takes: 'count', days: ([count], today) => [today - Number(count), today + 1] },
  { word: 'overdue', takes: 'nothing', days: (_, today) => [Number.NEGATIVE_INFINITY, today] },
]

/** Days are held against days, instants against the instants at which these begin where they are read. */
export function dateFilters<S extends { readonly withTime: boolean }>(): readonly FilterWord<number, S>[] {
  return dayWords.map(({ word, takes, days }) => ({
    word,
    takes,
    test: (given, { withTime }, asking) => {
      const [from, behind] = days(given, asking.today)
      return withTime ? within(beginning(from, asking), beginning(behind, asking)) : within(from, behind)
    },
  }))
}

const beginning = (day: number, { startOf }: Asking): number => (Number.isFinite(day) ? startOf(day) : day)

/** A day is stored as it is written, 2026-12-04, and held as a number of days; an instant is the same number in both. */
export const date: ColumnKind<'number', DateSettings> = {
  kind: 'date',
  version: 1,
  isWritten: true,
  form: 'number',
  settings: {
    plain: { withTime: false },
    wrong: settings => {
      const { withTime, ...rest } = Object(settings) as Partial<DateSettings>
      const isFit = typeof withTime === 'boolean' && Object.keys(rest).length === 0
      return isFit ? undefined : 'A date has a time or has none.'
    },
  },
  parse: (text, { withTime }, usage) => {
    if (text.trim() === '') return ok(null)
    const read = withTime ? instantFrom(text, usage) : dayFrom(withoutMidnight(text), usage)
    if (read === undefined) return refused(`“${text.trim().slice(0, 60)}” is not a date.`)
    return ok(withTime ? read : writtenDay(read))
  },
  words: (value, _settings, usage) =>
    typeof value === 'number' ? writtenInstant(value, usage) : String(value),
  fits: (value, { withTime }): value is string | number =>
    withTime ? isInstant(value) : typeof value === 'string' && readDay(value) !== undefined,
  hold: value => (typeof value === 'number' ? value : (readDay(String(value)) ?? Number.NaN)),
  stored: (held, { withTime }) => (Number.isNaN(held) ? null : withTime ? held : writtenDay(held)),
  orderOf: held => held,
  filters: [...dateFilters(), isEmptyWord, isFilledWord],
  totals: extremes,
  groupOf: (held, { withTime }) => monthOf(withTime ? Math.floor(held / dayLength) : held),
}
