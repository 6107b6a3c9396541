import type { ColumnView } from '#contract/views/boards.ts'
import { dayLength, readDay } from '#core/boards/days.ts'
import type { ArgumentForm } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import type { StateSettings } from '#core/boards/kinds/state.ts'
import type { TagSettings } from '#core/boards/kinds/tags.ts'
import { type Condition, nameColumn, sectionColumn } from '#core/boards/view.ts'
import { listedOr } from '#core/words/english.ts'
import type { OpenBoard } from './board-context.ts'

const days = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
})
const dayWords = (written: string): string => {
  const day = readDay(written)
  return day === undefined ? '…' : days.format(day * dayLength)
}

/** A condition in words: of what, and what holds there. */
export function conditionWords(
  board: OpenBoard,
  { column: id, word, given }: Condition,
): readonly [string, string] {
  const { info, usage } = board
  if (id === sectionColumn)
    return [
      'Section',
      `${word} ${listedOr(given.map(each => info.sections.find(({ id }) => id === each)?.name ?? 'one that is gone'))}`,
    ]
  const column = info.columns.find(each => each.id === id)
  const name = id === nameColumn ? 'Name' : (column?.name ?? 'A column that you do not see')
  const takes =
    kindOf({ kind: column?.kind ?? 'text' }).filters.find(each => each.word === word)?.takes ?? 'text'
  return [name, argumentWords[takes]({ word, given, column, nameOf: usage.nameOf })]
}

interface Said {
  readonly word: string
  readonly given: readonly string[]
  readonly column: ColumnView | undefined
  readonly nameOf: (id: string) => string | undefined
}

const named = ({ word, given, nameOf }: Said) =>
  `${word} ${listedOr(given.map(each => nameOf(each) ?? 'somebody'))}`
const plain = ({ word, given }: Said) => `${word} ${given.join(' ')}`

const argumentWords: Readonly<Record<ArgumentForm, (said: Said) => string>> = {
  nothing: ({ word }) => word,
  text: plain,
  number: plain,
  'two numbers': ({ word, given }) => `${word} ${given.join(' and ')}`,
  options: ({ word, given, column }) => {
    const { states = [], tags = [] } = Object(column?.settings) as Partial<StateSettings & TagSettings>
    const all = [...states, ...tags]
    return `${word} ${listedOr(given.map(each => all.find(({ id }) => id === each)?.name ?? '…'))}`
  },
  people: named,
  places: named,
  team: named,
  day: ({ word, given }) => `${word} ${dayWords(given[0] ?? '')}`,
  'two days': ({ word, given }) => `${word} ${given.map(dayWords).join(' to ')}`,
  count: ({ word, given }) => word.replace('days', `${given[0] ?? ''} days`),
}
