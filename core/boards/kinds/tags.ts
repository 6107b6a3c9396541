import { ok, refused } from '../../base/result.ts'
import { type ColumnKind, type FilterWord, isEmptyWord, isFilledWord } from '../kind.ts'
import { countEach } from '../tallies.ts'
import { type Option, optionNamed, placeIn, wrongOptions } from '../options.ts'
import { eachOnce, namesIn } from '../words.ts'

export interface TagSettings {
  readonly tags: readonly Option[]
}

function wrongSettings(settings: unknown): string | undefined {
  const { tags, ...rest } = Object(settings) as Partial<TagSettings>
  const isMore =
    Object.keys(rest).length > 0 ||
    (Array.isArray(tags) && tags.some(each => Object.keys(Object(each) as object).length !== 2))
  return isMore ? 'A tag has a name, and nothing else.' : wrongOptions(tags)
}

const filters: readonly FilterWord<readonly string[], TagSettings>[] = [
  { word: 'has', takes: 'options', test: given => held => given.some(each => held.includes(each)) },
  { word: 'has all', takes: 'options', test: given => held => given.every(each => held.includes(each)) },
  { word: 'has none', takes: 'options', test: given => held => !given.some(each => held.includes(each)) },
  isEmptyWord,
  isFilledWord,
]

/** Always in the order of the column's own. */
const inOrder = (ids: readonly string[], { tags }: TagSettings): string[] =>
  tags.filter(each => ids.includes(each.id)).map(each => each.id)

export const tags: ColumnKind<'list', TagSettings> = {
  kind: 'tags',
  version: 1,
  isWritten: true,
  form: 'list',
  settings: { plain: { tags: [] }, wrong: wrongSettings },
  parse: (text, settings) => {
    const ids: string[] = []
    for (const name of namesIn(text)) {
      const found = optionNamed(settings.tags, name)
      if (found === undefined) return refused(`There is no tag “${name.slice(0, 100)}” here.`)
      ids.push(found.id)
    }
    return ok(ids.length === 0 ? null : inOrder(ids, settings))
  },
  words: (value, settings) =>
    settings.tags
      .filter(each => (value as readonly string[]).includes(each.id))
      .map(each => each.name)
      .join(', '),
  fits: (value, settings): value is readonly string[] =>
    Array.isArray(value) &&
    value.length > 0 &&
    eachOnce(value as string[]).length === value.length &&
    value.every(id => settings.tags.some(each => each.id === id)),
  hold: (value, settings) => inOrder(value as readonly string[], settings),
  stored: held => (held.length === 0 ? null : held),
  orderOf: (held, settings) =>
    held.length === 0 ? settings.tags.length + 1 : placeIn(settings.tags, held[0]) + held.length / 1000,
  filters,
  totals: (lists, slots, { tags }) =>
    countEach(
      lists,
      slots,
      tags.map(each => each.id),
    ),
  groupOf: held => held.join(' '),
}
