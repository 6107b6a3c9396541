import type { ColumnView } from '#contract/views/boards.ts'
import type { KindName } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import type { StateSettings } from '#core/boards/kinds/state.ts'
import type { TagSettings } from '#core/boards/kinds/tags.ts'
import { sectionColumn } from '#core/boards/view.ts'
import { listed } from '#core/words/english.ts'
import type { OpenBoard } from './board-context.ts'

const months = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' })

interface Naming {
  readonly names: Readonly<Record<string, string>>
  /** What the groups are of; what the view is grouped by, if nothing is said. */
  readonly by?: string | null
}

/** What a group is called, by its key. */
export function groupWords(
  { info, view }: OpenBoard,
  key: string,
  { names, by = view.view.group }: Naming,
): string {
  if (by === sectionColumn) return info.sections.find(each => each.id === key)?.name ?? 'In no section'
  const column = info.columns.find(each => each.id === by)
  if (key === '' || column === undefined) return column === undefined ? 'All rows' : `No ${column.name}`
  return wordsFor[column.kind]?.(column, key.split(' '), names) ?? monthWords(key)
}

type Words = (column: ColumnView, keys: readonly string[], names: Naming['names']) => string

const named: Words = (_, keys, names) => listed(keys.map(id => names[id] ?? 'somebody'))

const wordsFor: Partial<Record<KindName, Words>> = {
  state: ({ settings }, [key]) =>
    (settings as unknown as StateSettings).states.find(each => each.id === key)?.name ?? 'Another state',
  tags: ({ settings }, keys) => {
    const { tags } = settings as unknown as TagSettings
    return listed(keys.map(id => tags.find(each => each.id === id)?.name ?? 'another tag'))
  },
  person: named,
  place: named,
  checkbox: ({ name }, [key]) => (key === 'yes' ? name : `Not ${name}`),
}

const monthWords = (key: string): string =>
  /^\d{4}-\d{2}$/.test(key) ? months.format(new Date(`${key}-15T00:00:00Z`)) : key

/** The columns by which rows can be grouped, or laid out in lanes. */
export const groupableColumns = ({ info }: OpenBoard): readonly ColumnView[] =>
  info.columns.filter(({ kind }) => kindOf({ kind }).groupOf !== undefined)
