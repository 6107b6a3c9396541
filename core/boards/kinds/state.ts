import { ok, refused } from '../../base/result.ts'
import { type ColumnKind, type FilterWord, isEmptyWord, isFilledWord } from '../kind.ts'
import { countEach } from '../tallies.ts'
import { type Option, optionNamed, placeIn, wrongOptions } from '../options.ts'

/** The shapes that mark states beside their names: ours, and never a colour alone. */
export const marks = [
  'ring',
  'half',
  'disc',
  'dotted',
  'triangle',
  'wedge',
  'diamond',
  'square',
  'cross',
  'bars',
  'steps',
  'wave',
] as const
export type Mark = (typeof marks)[number]

export interface State extends Option {
  readonly mark: Mark
  readonly isFinished: boolean
}

export interface StateSettings {
  readonly states: readonly State[]
}

function wrongSettings(settings: unknown): string | undefined {
  const { states, ...rest } = Object(settings) as Partial<StateSettings>
  if (Object.keys(rest).length > 0) return 'A state column has states, and nothing else.'
  const wrong = wrongOptions(states)
  if (wrong !== undefined) return wrong
  const isFit = states?.every(
    each =>
      marks.includes(each.mark) && typeof each.isFinished === 'boolean' && Object.keys(each).length === 4,
  )
  return isFit === true ? undefined : 'Each state has a mark, and counts as finished or does not.'
}

const finished = ({ states }: StateSettings): ReadonlySet<string> =>
  new Set(states.filter(each => each.isFinished).map(each => each.id))

const filters: readonly FilterWord<readonly string[], StateSettings>[] = [
  { word: 'is', takes: 'options', test: given => held => given.includes(held[0] ?? '') },
  { word: 'is not', takes: 'options', test: given => held => !given.includes(held[0] ?? '') },
  {
    word: 'is finished',
    takes: 'nothing',
    test: (_, settings) => {
      const done = finished(settings)
      return held => done.has(held[0] ?? '')
    },
  },
  {
    word: 'is not finished',
    takes: 'nothing',
    test: (_, settings) => {
      const done = finished(settings)
      return held => !done.has(held[0] ?? '')
    },
  },
  isEmptyWord,
  isFilledWord,
]

export const state: ColumnKind<'list', StateSettings> = {
  kind: 'state',
  version: 1,
  isWritten: true,
  form: 'list',
  settings: { plain: { states: [] }, wrong: wrongSettings },
  parse: (text, { states }) => {
    if (text.trim() === '') return ok(null)
    const found = optionNamed(states, text)
    return found === undefined
      ? refused(`There is no state “${text.trim().slice(0, 100)}” here.`)
      : ok(found.id)
  },
  words: (value, { states }) => states.find(each => each.id === value)?.name ?? '',
  fits: (value, { states }): value is string => states.some(each => each.id === value),
  hold: value => [String(value)],
  stored: held => held[0] ?? null,
  orderOf: (held, { states }) => placeIn(states, held[0]),
  filters,
  totals: (lists, slots, { states }) =>
    countEach(
      lists,
      slots,
      states.map(each => each.id),
    ),
  groupOf: held => held[0] ?? '',
}
