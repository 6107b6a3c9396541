import { ok, refused } from '../../base/result.ts'
import { dayFrom, readDay, writtenDay } from '../days.ts'
import { type ColumnKind, type FilterWord, isEmptyWord, isFilledWord, type Usage } from '../kind.ts'
import { extremes } from '../tallies.ts'
import { monthOf } from './date.ts'
import { type NoSettings, noSettings } from './text.ts'

type Days = readonly [from: number, through: number]

const day = (written: string | undefined): number => readDay(written ?? '') ?? Number.NaN

const filters: readonly FilterWord<Days, NoSettings>[] = [
  {
    word: 'touches',
    takes: 'two days',
    test: ([from, through]) => {
      const [first, last] = [day(from), day(through ?? from)]
      return held => held[0] <= last && held[1] >= first
    },
  },
  {
    word: 'begins',
    takes: 'two days',
    test: ([from, through]) => {
      const [first, last] = [day(from), day(through ?? from)]
      return held => held[0] >= first && held[0] <= last
    },
  },
  {
    word: 'ends',
    takes: 'two days',
    test: ([from, through]) => {
      const [first, last] = [day(from), day(through ?? from)]
      return held => held[1] >= first && held[1] <= last
    },
  },
  {
    word: 'is running',
    takes: 'nothing',
    test:
      (_given, _settings, { today }) =>
      held =>
        held[0] <= today && held[1] >= today,
  },
  {
    word: 'overdue',
    takes: 'nothing',
    test:
      (_given, _settings, { today }) =>
      held =>
        held[1] < today,
  },
  isEmptyWord,
  isFilledWord,
]

/** From a day through a day, both counted. */
export const period: ColumnKind<'span', NoSettings> = {
  kind: 'period',
  version: 1,
  isWritten: true,
  form: 'span',
  settings: noSettings,
  parse: (text, _settings, usage) => {
    if (text.trim() === '') return ok(null)
    const days = daysFrom(text, usage)
    if (days === undefined) return refused(`“${text.trim().slice(0, 60)}” is not a period.`)
    return days[1] < days[0]
      ? refused('A period ends on the day on which it begins, or after it.')
      : ok(days.map(writtenDay))
  },
  words: value => (value as readonly string[]).join('/'),
  fits: (value): value is readonly string[] =>
    Array.isArray(value) && value.length === 2 && day(value[0] as string) <= day(value[1] as string),
  hold: value => {
    const [from, through] = value as readonly string[]
    return [day(from), day(through)]
  },
  stored: held => (Number.isNaN(held[0]) ? null : held.map(writtenDay)),
  // One that begins on the same day and ends earlier comes first.
  orderOf: held => held[0] + (held[1] - held[0]) / 10_000_000,
  filters,
  totals: ({ from, through }, slots) => {
    const { filled, least } = extremes({ form: 'number', numbers: from }, slots)
    const { greatest } = extremes({ form: 'number', numbers: through }, slots)
    return least === undefined || greatest === undefined ? { filled } : { filled, least, greatest }
  },
  groupOf: held => monthOf(held[0]),
}

/** Two days with a sign or a word between them; one day alone is a period of that day. */
function daysFrom(text: string, usage: Usage): Days | undefined {
  const alone = dayFrom(text, usage)
  if (alone !== undefined) return [alone, alone]
  for (const between of [
    /\s*\/\s*/,
    /\s*\.\.+\s*/,
    /\s+(?:to|through|until|bis)\s+/i,
    /\s*[–—]\s*/,
    /\s+-\s+/,
  ]) {
    const parts = text.trim().split(between)
    if (parts.length !== 2) continue
    const through = dayFrom(parts[1] ?? '', usage)
    const from = dayFrom(parts[0] ?? '', usage)
    if (from !== undefined && through !== undefined) return [from, through]
  }
  return undefined
}
