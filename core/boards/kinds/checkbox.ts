import { ok, refused } from '../../base/result.ts'
import { fold } from '../../base/fold-words.ts'
import type { ColumnKind, FilterWord } from '../kind.ts'
import { countNumbers } from '../tallies.ts'
import { type NoSettings, noSettings } from './text.ts'

const yes: ReadonlySet<string> = new Set([
  'yes',
  'y',
  'true',
  '1',
  'x',
  '✓',
  '✔',
  '☑',
  'ja',
  'oui',
  'si',
  'da',
])
const no: ReadonlySet<string> = new Set(['', 'no', 'n', 'false', '0', '–', '-', '☐', 'nein', 'non', 'ne'])

const filters: readonly FilterWord<number, NoSettings>[] = [
  { word: 'is yes', takes: 'nothing', test: () => held => held === 1 },
  { word: 'is no', takes: 'nothing', test: () => held => held !== 1 },
]

/** Yes, or nothing. */
export const checkbox: ColumnKind<'number', NoSettings> = {
  kind: 'checkbox',
  version: 1,
  isWritten: true,
  form: 'number',
  settings: noSettings,
  parse: text => {
    const written = fold(text.trim())
    if (yes.has(written)) return ok(true)
    return no.has(written) ? ok(null) : refused('This is neither yes nor no.')
  },
  words: () => 'yes',
  fits: (value): value is true => value === true,
  hold: () => 1,
  stored: held => (held === 1 ? true : null),
  orderOf: held => (held === 1 ? 0 : 1),
  filters,
  totals: countNumbers,
  groupOf: held => (held === 1 ? 'yes' : 'no'),
}
