import { type KeyboardEvent, useId, useState } from 'react'
import { skipToken } from '@reduxjs/toolkit/query'
import type { ColumnView } from '#contract/views/boards.ts'
import { fold } from '#core/base/fold-words.ts'
import type { CellValue } from '#core/boards/kind.ts'
import type { State, StateSettings } from '#core/boards/kinds/state.ts'
import type { TagSettings } from '#core/boards/kinds/tags.ts'
import { useNodeQuery } from '../../../api/api.ts'
import { activeOf, useKnownPeople } from '../../../api/use-known-people.ts'
import { fromList } from '../../../api/chosen-files.ts'
import { useSearchQuery, useSettled } from '../../../api/search.ts'
import { pickFiles } from '../../../ui/pick-files.ts'
import { useOpenBoard } from '../board-context.ts'
import { StateMark } from '../StateMark.tsx'
import { useCellFiles } from '../use-cell-files.ts'
import { type EditorProps, type GoOn, onEditorKey } from './editing.ts'

interface Choice {
  readonly id: string
  readonly name: string
  readonly note?: string
  readonly state?: State
}

/** A cell that holds one or some of several: typing finds them, arrows go through them, Enter chooses. */
export function ChoiceEditor(props: EditorProps) {
  const { row, column, value, typed = '', names } = props
  const [text, setText] = useState(typed)
  const [at, setAt] = useState(0)
  const [chosen, setChosen] = useState<readonly string[]>(value === null ? [] : ([value].flat() as string[]))
  const list = useId()
  const side = useSide(column)
  const choices = useChoices(column, { row: row.id, text, chosen, names })
  const { choose, done } = useChoosing(props, {
    chosen,
    onChosen: next => {
      setChosen(next)
      setText('')
    },
  })
  const keys = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key]
    const isOne = holdsOne(column)
    const isChoosing = !isOne && event.key === 'Enter' && !event.shiftKey && (text !== '' || at > 0)
    if (event.key === 'Backspace' && text === '') setChosen(chosen.slice(0, -1))
    else if (step === undefined && !isChoosing) {
      const means = isOne && (text !== '' || event.key === 'Enter')
      const finish = (goOn: GoOn) => (means ? choose(choices[at], goOn) : done(chosen, goOn))
      onEditorKey(event, { finish, onCancel: props.onCancel })
    } else {
      if (step === undefined) choose(choices[at], 'stay')
      else setAt(clamp(at + step, choices.length))
      event.preventDefault()
      event.stopPropagation()
    }
  }
  return (
    <div className={`absolute top-0 z-20 w-[max(100%,15rem)] border-2 border-primary bg-base-100 ${side}`}>
      <ChoiceField
        column={column}
        list={list}
        at={choices[at] === undefined ? undefined : at}
        placeholder={chosen.length === 0 ? 'Type to find' : chosenWords(chosen, choices, names)}
        text={text}
        onText={next => {
          setText(next)
          setAt(0)
        }}
        onKeys={keys}
        onLeave={() => done(chosen, 'stay')}
      />
      <Choices
        id={list}
        label={column.name}
        choices={choices}
        chosen={chosen}
        at={at}
        isOne={holdsOne(column)}
        onAt={setAt}
        onChoose={choice => choose(choice, 'stay')}
      />
    </div>
  )
}

/** Wider than its column, it would make the table wider beyond the last one. */
const useSide = ({ id }: ColumnView): 'left-0' | 'right-0' =>
  useOpenBoard().shown.at(-1)?.id === id ? 'right-0' : 'left-0'

interface Choosing {
  readonly chosen: readonly string[]
  readonly onChosen: (chosen: readonly string[]) => void
}

/** What choosing comes to: the cell is done, or one goes on; links to places and files have more to them. */
function useChoosing({ row, column, value, onDone }: EditorProps, { chosen, onChosen }: Choosing) {
  const { onLinked } = useOpenBoard()
  const upload = useCellFiles({ row: row.id, name: row.name, column: column.id })
  const done = (ids: readonly string[], goOn: GoOn) => {
    const before = (value ?? []) as readonly string[]
    const places = column.kind === 'place' ? ids.filter(id => !before.includes(id)) : []
    if (places.length > 0) onLinked({ row: row.id, name: row.name, places })
    onDone(valueOf(column, ids), goOn)
  }
  /** The one that is meant now; of several it is turned on or off, and one goes on choosing. */
  const choose = (choice: Choice | undefined, goOn: GoOn) => {
    if (choice === undefined) done(chosen, goOn)
    else if (holdsOne(column)) done([choice.id], goOn)
    else if (choice.id === uploading) {
      done(chosen, 'stay')
      void pickFiles(`Files for ${column.name}`).then(files => upload(fromList(files)))
    } else onChosen(turned(chosen, choice.id))
  }
  return { choose, done }
}

interface FieldProps {
  readonly column: ColumnView
  readonly list: string
  readonly at: number | undefined
  readonly placeholder: string
  readonly text: string
  readonly onText: (text: string) => void
  readonly onKeys: (event: KeyboardEvent) => void
  readonly onLeave: () => void
}

const ChoiceField = ({ column, list, at, placeholder, text, onText, onKeys, onLeave }: FieldProps) => (
  <input
    autoFocus
    role="combobox"
    aria-label={column.name}
    aria-expanded
    aria-controls={list}
    aria-activedescendant={at === undefined ? undefined : `${list}-${at}`}
    className="h-[1.6rem] w-full bg-base-100 px-1.5 outline-none"
    placeholder={placeholder}
    value={text}
    onChange={event => onText(event.target.value)}
    onKeyDown={onKeys}
    onBlur={onLeave}
  />
)

interface ChoicesProps {
  readonly id: string
  readonly label: string
  readonly choices: readonly Choice[]
  readonly chosen: readonly string[]
  readonly at: number
  readonly isOne: boolean
  readonly onAt: (at: number) => void
  readonly onChoose: (choice: Choice) => void
}

const Choices = ({ id, label, choices, chosen, at, isOne, onAt, onChoose }: ChoicesProps) => (
  <ul
    id={id}
    role="listbox"
    aria-label={label}
    aria-multiselectable={!isOne}
    className="max-h-56 overflow-y-auto border-t border-base-300"
  >
    {choices.map((choice, index) => (
      <li
        key={choice.id}
        id={`${id}-${index}`}
        role="option"
        aria-selected={chosen.includes(choice.id)}
        className={`flex cursor-pointer items-center gap-2 px-1.5 py-0.5 ${index === at ? 'bg-base-200' : ''}`}
        // The field keeps the focus: leaving it would be leaving the cell.
        onMouseDown={event => event.preventDefault()}
        onMouseEnter={() => onAt(index)}
        onClick={() => onChoose(choice)}
      >
        <span aria-hidden className="w-3">
          {chosen.includes(choice.id) ? '✓' : ''}
        </span>
        {choice.state !== undefined && (
          <StateMark mark={choice.state.mark} isFinished={choice.state.isFinished} />
        )}
        <span className="truncate">{choice.name}</span>
        {choice.note !== undefined && (
          <span className="quiet ml-auto truncate pl-2 text-sm">{choice.note}</span>
        )}
      </li>
    ))}
    {choices.length === 0 && (
      <li role="option" aria-selected={false} aria-disabled className="quiet px-1.5 py-0.5">
        Nothing found
      </li>
    )}
  </ul>
)

const turned = (chosen: readonly string[], id: string): readonly string[] =>
  chosen.includes(id) ? chosen.filter(each => each !== id) : [...chosen, id]

const clamp = (at: number, length: number): number => Math.max(0, Math.min(length - 1, at))

const holdsOne = ({ kind, settings }: ColumnView): boolean =>
  kind === 'state' || (kind === 'person' && (settings as { isSeveral?: boolean }).isSeveral !== true)

function valueOf({ kind, settings }: ColumnView, ids: readonly string[]): CellValue {
  if (ids.length === 0) return null
  if (kind === 'state') return ids[0] ?? null
  if (kind !== 'tags') return [...ids]
  return (settings as unknown as TagSettings).tags.map(each => each.id).filter(id => ids.includes(id))
}

const chosenWords = (
  chosen: readonly string[],
  choices: readonly Choice[],
  names: Readonly<Record<string, string>>,
): string =>
  chosen.map(id => choices.find(each => each.id === id)?.name ?? names[id] ?? 'somebody').join(', ')

/** Stands for what is not there yet. */
const uploading = 'upload'

interface Finding {
  readonly row: string
  readonly text: string
  readonly chosen: readonly string[]
  readonly names: Readonly<Record<string, string>>
}

const shownAtMost = 50

function useChoices(column: ColumnView, { row, text, chosen, names }: Finding): readonly Choice[] {
  const { slug } = useOpenBoard()
  const wanted = fold(text.trim())
  const people = useKnownPeople(column.kind === 'person')
  const { data: place } = useNodeQuery(column.kind === 'file' ? { slug, id: row } : skipToken)
  const settled = useSettled(text.trim())
  const { data: found } = useSearchQuery(
    column.kind === 'place' && settled !== '' ? { slug, find: settled } : skipToken,
  )
  switch (column.kind) {
    case 'state':
      return fitting(
        (column.settings as unknown as StateSettings).states.map(each => ({ ...each, state: each })),
        wanted,
      )
    case 'tags':
      return fitting((column.settings as unknown as TagSettings).tags, wanted)
    case 'person':
      return fitting(
        activeOf(people).map(({ id, name }) => ({ id, name })),
        wanted,
      )
    case 'place':
      return wanted === ''
        ? named(chosen, names)
        : (found?.hits ?? [])
            .filter(each => each.part === 'place')
            .map(({ id, name, path }) => ({ id, name: name.text, note: path }))
    default:
      return [
        ...fitting(
          (place?.children ?? []).filter(each => each.kind === 'file'),
          wanted,
        ),
        { id: uploading, name: 'Upload files …' },
      ]
  }
}

const named = (ids: readonly string[], names: Finding['names']): Choice[] =>
  ids.flatMap(id => (names[id] === undefined ? [] : [{ id, name: names[id] }]))

const fitting = (choices: readonly Choice[], wanted: string): Choice[] =>
  choices.filter(each => fold(each.name).includes(wanted)).slice(0, shownAtMost)
