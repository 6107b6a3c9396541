import { useId, useState } from 'react'
import type { ColumnView } from '#contract/views/boards.ts'
import { dayLength, readDay, writtenDay } from '#core/boards/days.ts'
import type { CellValue } from '#core/boards/kind.ts'
import { DayField } from '../../../ui/DayField.tsx'
import { onSubmit } from '../../../ui/on-submit.ts'
import { type OpenBoard, useOpenBoard } from '../board-context.ts'
import { useCreateRow } from '../NewRowField.tsx'

interface Props {
  readonly column: ColumnView
  readonly day: number
  /** Another day, or none any more. */
  readonly onDay: (day: number | undefined) => void
}

/** A row that begins on a day: one after another, until it is closed. */
export function NewRowOnDay({ column, day, onDay }: Props) {
  const board = useOpenBoard()
  const createRow = useCreateRow()
  const field = useId()
  const [name, setName] = useState('')
  const create = async () => {
    const text = name.trim()
    setName('')
    const cell = { column: column.id, value: valueOn(day, column, board) }
    if (!(await createRow(text, { section: null, cell }))) setName(text)
  }
  return (
    <form
      aria-label="New row"
      className="mb-2 flex flex-wrap items-end gap-2 border-y border-base-300 py-2"
      onSubmit={onSubmit(create)}
      onKeyDown={event => {
        if (event.key === 'Escape') onDay(undefined)
      }}
    >
      <div>
        <label className="label-line" htmlFor={field}>
          Name of the row
        </label>
        <input
          id={field}
          autoFocus
          className="field"
          maxLength={200}
          value={name}
          onChange={event => setName(event.target.value)}
        />
      </div>
      <DayField label={column.name} value={writtenDay(day)} onValue={text => onDay(readDay(text) ?? day)} />
      <button className="btn-main" disabled={name.trim() === ''}>
        Create row
      </button>
      <button type="button" className="btn-plain" onClick={() => onDay(undefined)}>
        Close
      </button>
    </form>
  )
}

const noon = dayLength / 2

function valueOn(day: number, { kind, settings }: ColumnView, { usage }: OpenBoard): CellValue {
  if (kind === 'period') return [writtenDay(day), writtenDay(day)]
  return (settings as { readonly withTime?: boolean }).withTime === true
    ? usage.instantOf(day * dayLength + noon)
    : writtenDay(day)
}
