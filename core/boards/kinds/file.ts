import { refused } from '../../base/result.ts'
import { type ColumnKind, isEmptyWord, isFilledWord } from '../kind.ts'
import { fitsIds, idLists, wordsOfIds } from './ids.ts'
import { type NoSettings, noSettings } from './text.ts'

const filesAtMost = 200

/** Files that lie in the row. They are uploaded or picked, never typed. */
export const file: ColumnKind<'list', NoSettings> = {
  kind: 'file',
  ...idLists,
  settings: noSettings,
  parse: () => refused('Files are not typed: upload them, or choose among those of the row.'),
  words: (value, _settings, { nameOf }) => wordsOfIds(value, nameOf, '; '),
  fits: (value): value is readonly string[] => fitsIds(value, filesAtMost),
  filters: [isEmptyWord, isFilledWord],
}
