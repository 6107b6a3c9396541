import { useState } from 'react'
import type { ColumnView, RowDetail } from '#contract/views/boards.ts'
import { isSame } from '#core/base/same.ts'
import type { CellValue } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import { useOpenBoard } from '../board-context.ts'
import { CellEditor } from '../cells/CellEditor.tsx'
import { CellShown } from '../cells/CellShown.tsx'
import { valueIn } from '../writing.ts'

/** Every value of a row, each in a line of its own, to be changed where it is one's to change. */
export function RowValues({ detail }: { readonly detail: RowDetail }) {
  const [editing, setEditing] = useState<string>()
  // What is written is held against what was seen when it was begun.
  const [seen, setSeen] = useState(detail)
  return (
    <dl>
      {detail.columns.map(column => (
        <div key={column.id} className="flex gap-2 border-b border-base-300 py-1">
          <dt className="quiet w-28 shrink-0 pt-0.5 text-sm break-words">{column.name}</dt>
          <dd className="min-w-0 grow">
            <Value
              detail={editing === column.id ? seen : detail}
              column={column}
              isEditing={editing === column.id}
              onEdit={isOn => {
                setSeen(detail)
                setEditing(isOn ? column.id : undefined)
              }}
            />
            {column.isRestricted && <p className="text-xs text-warning">restricted</p>}
          </dd>
        </div>
      ))}
    </dl>
  )
}

interface ValueProps {
  readonly detail: RowDetail
  readonly column: ColumnView
  readonly isEditing: boolean
  readonly onEdit: (isOn: boolean) => void
}

function Value({ detail: { row, names }, column, isEditing, onEdit }: ValueProps) {
  const { writing } = useOpenBoard()
  const value = valueIn(row, column.id)
  const mayWrite = row.mayEdit && column.isMine && kindOf(column).isWritten
  const write = (next: CellValue) => {
    onEdit(false)
    if (!isSame(next, value))
      void writing.write([{ row: row.id, column: column.id, value: next, before: value, seen: row.version }])
  }
  if (isEditing)
    return (
      <div className="relative h-7">
        <CellEditor
          row={row}
          column={column}
          value={value}
          typed={undefined}
          names={names}
          onDone={write}
          onCancel={() => onEdit(false)}
        />
      </div>
    )
  const shown =
    column.kind === 'long text' ? (
      <span className="whitespace-pre-wrap">{String(value ?? '')}</span>
    ) : (
      <CellShown column={column} value={value} names={names} />
    )
  if (!mayWrite) return <div className="min-h-6 break-words">{shown}</div>
  return (
    <div className="flex min-h-6 items-start justify-between gap-2 break-words">
      <span className="min-w-0">{value === null ? <span className="quiet">–</span> : shown}</span>
      <button
        type="button"
        className="quiet shrink-0 cursor-pointer text-sm hover:underline"
        aria-label={`Change ${column.name}`}
        onClick={() => {
          if (column.kind === 'checkbox') write(value === true ? null : true)
          else onEdit(true)
        }}
      >
        {column.kind === 'checkbox' ? (value === true ? 'untick' : 'tick') : 'change'}
      </button>
    </div>
  )
}
