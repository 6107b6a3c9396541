import { useState } from 'react'
import type { ColumnView } from '#contract/views/boards.ts'
import { dayFrom, writtenDay } from '#core/boards/days.ts'
import type { ArgumentForm } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import type { StateSettings } from '#core/boards/kinds/state.ts'
import type { TagSettings } from '#core/boards/kinds/tags.ts'
import { type Condition, nameColumn, sectionColumn } from '#core/boards/view.ts'
import { useTeamsQuery } from '../../api/api.ts'
import { activeOf, useKnownPeople } from '../../api/use-known-people.ts'
import { useOpenBoard } from './board-context.ts'

interface Props {
  /** With the condition, or with none where it is given up. */
  readonly onDone: (condition: Condition | undefined) => void
}

/** A condition in its parts: of which column, which word, and what it takes besides. */
export function ConditionForm({ onDone }: Props) {
  const { info } = useOpenBoard()
  const [column, setColumn] = useState(info.columns[0]?.id ?? nameColumn)
  const words = wordsFor(info.columns, column)
  const [word, setWord] = useState(words[0]?.word ?? '')
  const [given, setGiven] = useState<readonly string[]>([])
  const chosen = words.find(each => each.word === word) ?? words[0]
  const takes = chosen?.takes ?? 'nothing'
  const chooseColumn = (id: string) => {
    setColumn(id)
    setWord(wordsFor(info.columns, id)[0]?.word ?? '')
    setGiven([])
  }
  const chooseWord = (next: string) => {
    setWord(next)
    setGiven([])
  }
  const isWhole = given.filter(each => each !== '').length >= leastOf(takes)
  return (
    <form
      className="flex flex-wrap items-center gap-2 py-1"
      onSubmit={event => {
        event.preventDefault()
        onDone({ column, word: chosen?.word ?? word, given: takes === 'nothing' ? [] : given })
      }}
      onKeyDown={event => {
        if (event.key === 'Escape') onDone(undefined)
      }}
    >
      <Choosing
        column={column}
        words={words}
        chosen={chosen?.word}
        onColumn={chooseColumn}
        onWord={chooseWord}
      />
      <Given
        takes={takes}
        column={info.columns.find(each => each.id === column)}
        given={given}
        onGiven={setGiven}
      />
      <button className="btn-main" disabled={!isWhole}>
        Add
      </button>
      <button type="button" className="btn-plain" onClick={() => onDone(undefined)}>
        Cancel
      </button>
    </form>
  )
}

interface ChoosingProps {
  readonly column: string
  readonly words: readonly { readonly word: string }[]
  readonly chosen: string | undefined
  readonly onColumn: (id: string) => void
  readonly onWord: (word: string) => void
}

function Choosing({ column, words, chosen, onColumn, onWord }: ChoosingProps) {
  const { info } = useOpenBoard()
  return (
    <>
      <select
        autoFocus
        className="choice w-auto"
        aria-label="Column"
        value={column}
        onChange={event => onColumn(event.target.value)}
      >
        <option value={nameColumn}>Name</option>
        {info.sections.length > 0 && <option value={sectionColumn}>Section</option>}
        {info.columns.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      <select
        className="choice w-auto"
        aria-label="Condition"
        value={chosen}
        onChange={event => onWord(event.target.value)}
      >
        {words.map(({ word }) => (
          <option key={word}>{word}</option>
        ))}
      </select>
    </>
  )
}

const sectionWords = [
  { word: 'is', takes: 'options' },
  { word: 'is not', takes: 'options' },
] as const

const wordsFor = (
  columns: readonly ColumnView[],
  id: string,
): readonly { word: string; takes: ArgumentForm }[] =>
  id === sectionColumn
    ? sectionWords
    : kindOf({ kind: columns.find(each => each.id === id)?.kind ?? 'text' }).filters

const leastOf = (takes: ArgumentForm): number =>
  takes === 'nothing' ? 0 : takes === 'two days' || takes === 'two numbers' ? 2 : 1

interface GivenProps {
  readonly takes: ArgumentForm
  readonly column: ColumnView | undefined
  readonly given: readonly string[]
  readonly onGiven: (given: readonly string[]) => void
}

function Given({ takes, column, given, onGiven }: GivenProps) {
  switch (takes) {
    case 'nothing':
      return null
    case 'options':
      return <Options column={column} given={given} onGiven={onGiven} />
    case 'people':
      return <People given={given} onGiven={onGiven} />
    case 'team':
      return <Teams given={given} onGiven={onGiven} />
    case 'places':
      return <Places given={given} onGiven={onGiven} />
    case 'two days':
    case 'two numbers':
      return (
        <>
          <Field takes={takes} at={0} given={given} onGiven={onGiven} />
          <span>to</span>
          <Field takes={takes} at={1} given={given} onGiven={onGiven} />
        </>
      )
    default:
      return <Field takes={takes} at={0} given={given} onGiven={onGiven} />
  }
}

interface FieldProps extends Omit<GivenProps, 'column'> {
  readonly at: number
}

const fieldLabels: Partial<Record<ArgumentForm, string>> = {
  day: 'Day',
  'two days': 'Day',
  count: 'How many days',
}

/** What is typed goes into the view as a program reads it. */
function Field({ takes, at, given, onGiven }: FieldProps) {
  const { usage } = useOpenBoard()
  const [text, setText] = useState('')
  const isDay = takes === 'day' || takes === 'two days'
  const read = (typed: string): string => {
    if (isDay) {
      const day = dayFrom(typed, usage)
      return day === undefined ? '' : writtenDay(day)
    }
    if (takes === 'text') return typed
    const number = Number(typed.replace(usage.decimal, '.').trim() || Number.NaN)
    return Number.isFinite(number) ? String(number) : ''
  }
  return (
    <input
      className="field w-36"
      aria-label={fieldLabels[takes] ?? 'Value'}
      placeholder={isDay ? '4 Dec 2026' : ''}
      value={text}
      onChange={event => {
        setText(event.target.value)
        const next = [...given]
        next[at] = read(event.target.value)
        onGiven(Array.from({ length: next.length }, (_, nth) => next.at(nth) ?? ''))
      }}
    />
  )
}

interface Option {
  readonly id: string
  readonly name: string
}

function Options({ column, given, onGiven }: Omit<GivenProps, 'takes'>) {
  const { info } = useOpenBoard()
  const { states, tags } = Object(column?.settings) as Partial<StateSettings & TagSettings>
  const options = column === undefined ? info.sections : (states ?? tags ?? [])
  return <Some label="Which" options={options} given={given} onGiven={onGiven} />
}

interface SomeProps extends Omit<GivenProps, 'takes' | 'column'> {
  readonly label: string
  readonly options: readonly Option[]
}

const Some = ({ label, options, given, onGiven }: SomeProps) => (
  <span role="group" aria-label={label} className="flex flex-wrap gap-x-3">
    {options.map(({ id, name }) => (
      <label key={id} className="flex items-center gap-1.5">
        <input
          type="checkbox"
          className="checkbox checkbox-xs border-base-content/60"
          checked={given.includes(id)}
          onChange={event =>
            onGiven(event.target.checked ? [...given, id] : given.filter(each => each !== id))
          }
        />
        {name}
      </label>
    ))}
  </span>
)

type OfSome = Pick<GivenProps, 'given' | 'onGiven'>

function People({ given, onGiven }: OfSome) {
  const people = activeOf(useKnownPeople())
  return <One label="Person" options={people} given={given} onGiven={onGiven} />
}

function Teams({ given, onGiven }: OfSome) {
  const { slug } = useOpenBoard()
  const { data = [] } = useTeamsQuery(slug)
  return <One label="Team" options={data} given={given} onGiven={onGiven} />
}

/** Of the places that the shown rows name. */
function Places({ given, onGiven }: OfSome) {
  const { placeNames } = useOpenBoard()
  const [options] = useState(placeNames)
  return <One label="Place" options={options} given={given} onGiven={onGiven} />
}

const One = ({ label, options, given, onGiven }: SomeProps) => (
  <select
    className="choice w-auto"
    aria-label={label}
    value={given[0] ?? ''}
    onChange={event => onGiven([event.target.value])}
  >
    <option value="" disabled>
      {label}
    </option>
    {options.map(({ id, name }) => (
      <option key={id} value={id}>
        {name}
      </option>
    ))}
  </select>
)
