import { ok, refused } from '../../base/result.ts'
import { type ColumnKind, type FilterWord, isEmptyWord, isFilledWord } from '../kind.ts'
import { fitsIds, idLists, idsNamed, wordsOfIds } from './ids.ts'
import { type NoSettings, noSettings } from './text.ts'

const placesAtMost = 50

const filters: readonly FilterWord<readonly string[], NoSettings>[] = [
  { word: 'is', takes: 'places', test: given => held => given.some(each => held.includes(each)) },
  isEmptyWord,
  isFilledWord,
]

/** Links to places. Whoever reads them is handed only those that they may open. */
export const place: ColumnKind<'list', NoSettings> = {
  kind: 'place',
  ...idLists,
  settings: noSettings,
  parse: (text, _settings, { placeOf }) => {
    const found = idsNamed(text, placeOf, 'is no place that you can open.')
    if (!found.ok) return found
    if (found.value.length > placesAtMost) return refused(`A cell holds ${placesAtMost} places at most.`)
    return ok(found.value.length === 0 ? null : found.value)
  },
  words: (value, _settings, { nameOf }) => wordsOfIds(value, nameOf, '; '),
  fits: (value): value is readonly string[] => fitsIds(value, placesAtMost),
  filters,
  groupOf: held => held.join(' '),
}
