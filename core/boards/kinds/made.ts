import { refused } from '../../base/result.ts'
import { dayLength } from '../days.ts'
import type { ColumnKind, FilterWord } from '../kind.ts'
import { extremes } from '../tallies.ts'
import { dateFilters, monthOf, writtenInstant } from './date.ts'
import { type NoSettings, noSettings } from './text.ts'

const byWords: readonly FilterWord<number, NoSettings>[] = [
  { word: 'by', takes: 'people', test: given => (_, by) => by !== undefined && given.includes(by) },
  {
    word: 'by me',
    takes: 'nothing',
    test:
      (_given, _settings, { me }) =>
      (_, by) =>
        by === me,
  },
  {
    word: 'by team',
    takes: 'team',
    test: ([team = ''], _settings, { membersOf }) => {
      const members = membersOf(team)
      return (_, by) => by !== undefined && members.has(by)
    },
  },
]

/** An instant is always one with a time. */
const whenWords: readonly FilterWord<number, NoSettings>[] = dateFilters().map(({ test, ...word }) => ({
  ...word,
  test: (given, _settings, asking) => test(given, { withTime: true }, asking),
}))

/** When something was done to a row, and by whom: told by the board, and not edited. */
const doneKind = (kind: 'created' | 'updated'): ColumnKind<'number', NoSettings> => ({
  kind,
  version: 1,
  isWritten: false,
  form: 'number',
  settings: noSettings,
  parse: () => refused(`When a row was ${kind} is not edited.`),
  words: (value, _settings, usage) => writtenInstant(Number(value), usage),
  fits: (value): value is number => Number.isSafeInteger(value),
  hold: Number,
  stored: held => (Number.isNaN(held) ? null : held),
  orderOf: held => held,
  filters: [...whenWords, ...byWords],
  totals: extremes,
  groupOf: held => monthOf(Math.floor(held / dayLength)),
})

export const created = doneKind('created')
export const updated = doneKind('updated')
