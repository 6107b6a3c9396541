import type { KeyboardEvent } from 'react'
import type { ColumnView } from '#contract/views/boards.ts'
import type { CellValue } from '#core/boards/kind.ts'

/** Where one goes on after a cell. */
export type GoOn = 'down' | 'right' | 'left' | 'stay'

export interface EditorProps {
  readonly row: { readonly id: string; readonly name: string }
  readonly column: ColumnView
  readonly value: CellValue
  /** What was typed to begin; the cell is written over by it. */
  readonly typed: string | undefined
  readonly names: Readonly<Record<string, string>>
  readonly onDone: (value: CellValue, goOn: GoOn) => void
  readonly onCancel: () => void
}

interface Doing {
  readonly finish: (goOn: GoOn) => void
  readonly onCancel: () => void
}

/** Enter and Tab go on, Escape leaves; what the field itself does with keys stays with it. */
export function onEditorKey(event: KeyboardEvent, { finish, onCancel }: Doing): void {
  event.stopPropagation()
  if (event.nativeEvent.isComposing) return
  if (event.key === 'Escape') onCancel()
  else if (event.key === 'Tab') finish(event.shiftKey ? 'left' : 'right')
  else if (event.key === 'Enter' && !event.shiftKey) finish('down')
  else return
  event.preventDefault()
}
