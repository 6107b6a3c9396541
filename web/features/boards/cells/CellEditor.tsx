import { type KeyboardEvent, type ReactNode, useId, useState } from 'react'
import type { ColumnView } from '#contract/views/boards.ts'
import type { CellValue } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import { useOpenBoard } from '../board-context.ts'
import { ChoiceEditor } from './ChoiceEditor.tsx'
import { type EditorProps, type GoOn, onEditorKey } from './editing.ts'

/** The field in which a cell is written: a text that is read as its kind reads it, or a choice. */
export function CellEditor(props: EditorProps): ReactNode {
  switch (props.column.kind) {
    case 'state':
    case 'tags':
    case 'person':
    case 'place':
    case 'file':
      return <ChoiceEditor {...props} />
    default:
      return <TextEditor {...props} />
  }
}

function TextEditor({ column, value, typed, onDone, onCancel }: EditorProps) {
  const { usage } = useOpenBoard()
  const kind = kindOf(column)
  const words = value === null ? '' : kind.words(value, column.settings, usage)
  const [text, setText] = useState(typed ?? words)
  const wrong = useId()
  const read = kind.parse(text, column.settings, usage)
  const [isTried, setTried] = useState(false)
  const finish = (goOn: GoOn) => {
    if (read.ok) onDone(read.value, goOn)
    else setTried(true)
  }
  const keys = (event: KeyboardEvent) => onEditorKey(event, { finish, onCancel })
  const field = {
    autoFocus: true,
    value: text,
    'aria-label': column.name,
    'aria-invalid': isTried && !read.ok,
    'aria-describedby': wrong,
    onKeyDown: keys,
    onBlur: () => {
      if (read.ok) onDone(read.value, 'stay')
      else onCancel()
    },
  }
  return (
    <>
      {column.kind === 'long text' ? (
        <textarea
          {...field}
          rows={6}
          className="absolute top-0 left-0 z-20 w-[max(100%,22rem)] border-2 border-primary bg-base-100 px-1.5 py-1 outline-none"
          onChange={event => setText(event.target.value)}
        />
      ) : (
        <input
          {...field}
          className="absolute inset-0 z-20 w-full border-2 border-primary bg-base-100 px-1.5 outline-none"
          onChange={event => setText(event.target.value)}
        />
      )}
      <Hint id={wrong} isWrong={isTried && !read.ok}>
        {read.ok ? readBack(column, read.value, words) : isTried ? read.error : null}
      </Hint>
    </>
  )
}

/** A day that was written in some other way is told as it is read. */
const readBack = ({ kind }: ColumnView, value: CellValue, before: string): string | null =>
  (kind === 'date' || kind === 'period') && value !== null && String(value) !== before
    ? [value].flat().join(' – ')
    : null

function Hint({
  id,
  isWrong,
  children,
}: {
  readonly id: string
  readonly isWrong: boolean
  readonly children: string | null
}) {
  return (
    <span
      id={id}
      role={isWrong ? 'alert' : undefined}
      className={
        children === null
          ? 'sr-only'
          : `absolute top-full left-0 z-20 border bg-base-100 px-1.5 text-sm whitespace-nowrap ${isWrong ? 'border-error text-error' : 'quiet border-base-300'}`
      }
    >
      {children}
    </span>
  )
}
