import { type KeyboardEvent, useState } from 'react'
import type { CellValue } from '#core/boards/kind.ts'
import { useOpenBoard } from './board-context.ts'

export interface NewRowAt {
  readonly section: string | null
  /** What it begins with, besides its name. */
  readonly cell?: { readonly column: string; readonly value: CellValue }
}

interface Props {
  /** In which lane or section, as people read it. */
  readonly where: string | undefined
  readonly at: NewRowAt
  readonly className: string
}

/** Where a row begins: typed names become rows one after another. */
export function NewRowField({ where, at, className }: Props) {
  const [name, setName] = useState('')
  const createRow = useCreateRow()
  const create = async () => {
    const text = name.trim()
    if (text === '') return
    setName('')
    if (!(await createRow(text, at))) setName(text)
  }
  const keys = (event: KeyboardEvent) => {
    event.stopPropagation()
    if (event.key === 'Enter' && !event.nativeEvent.isComposing) void create()
    if (event.key === 'Escape') setName('')
  }
  return (
    <input
      className={className}
      aria-label={where === undefined ? 'New row' : `New row in ${where}`}
      placeholder={where === undefined ? 'New row …' : `New row in ${where} …`}
      maxLength={200}
      value={name}
      onChange={event => setName(event.target.value)}
      onBlur={() => void create()}
      onKeyDown={keys}
    />
  )
}

/** Makes a row by its name; whether it was made. */
export function useCreateRow(): (name: string, at: NewRowAt) => Promise<boolean> {
  const { writing } = useOpenBoard()
  return (name, { section, cell }) => {
    const row = { row: 'new:row', before: null, seen: 0 }
    const cells = [{ column: 'name', value: name }, ...(cell === undefined ? [] : [cell])]
    return writing.write(
      cells.map(each => ({ ...row, ...each })),
      { rows: [{ row: row.row, section }] },
    )
  }
}
