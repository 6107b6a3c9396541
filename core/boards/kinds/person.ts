import { ok, refused } from '../../base/result.ts'
import { type ColumnKind, type FilterWord, isEmptyWord, isFilledWord } from '../kind.ts'
import { fitsIds, idLists, idsNamed, wordsOfIds } from './ids.ts'

export interface PersonSettings {
  readonly isSeveral: boolean
}

/** So many people stand in one cell. */
export const peopleAtMost = 50

const filters: readonly FilterWord<readonly string[], PersonSettings>[] = [
  { word: 'is', takes: 'people', test: given => held => given.some(each => held.includes(each)) },
  {
    word: 'is me',
    takes: 'nothing',
    test:
      (_given, _settings, { me }) =>
      held =>
        held.includes(me),
  },
  {
    word: 'is in team',
    takes: 'team',
    test: ([team = ''], _settings, { membersOf }) => {
      const members = membersOf(team)
      return held => held.some(each => members.has(each))
    },
  },
  isEmptyWord,
  isFilledWord,
]

/** People by their ids. Who may be named is not for the kind to say: whoever can see the row. */
export const person: ColumnKind<'list', PersonSettings> = {
  kind: 'person',
  ...idLists,
  settings: {
    plain: { isSeveral: false },
    wrong: settings => {
      const { isSeveral, ...rest } = Object(settings) as Partial<PersonSettings>
      const isFit = typeof isSeveral === 'boolean' && Object.keys(rest).length === 0
      return isFit ? undefined : 'A person column holds one person or several.'
    },
  },
  parse: (text, { isSeveral }, { personOf }) => {
    const found = idsNamed(text, personOf, 'is nobody whom you can name here.')
    if (!found.ok) return found
    if (found.value.length > (isSeveral ? peopleAtMost : 1))
      return refused(
        isSeveral ? `A cell holds ${peopleAtMost} people at most.` : 'This column holds one person.',
      )
    return ok(found.value.length === 0 ? null : found.value)
  },
  words: (value, _settings, { nameOf }) => wordsOfIds(value, nameOf, ', '),
  fits: (value, { isSeveral }): value is readonly string[] => fitsIds(value, isSeveral ? peopleAtMost : 1),
  filters,
  groupOf: held => held.join(' '),
}
