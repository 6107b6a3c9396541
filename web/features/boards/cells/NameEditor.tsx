import { useState } from 'react'
import type { CellValue } from '#core/boards/kind.ts'
import { type GoOn, onEditorKey } from './editing.ts'

interface Props {
  readonly value: string
  readonly typed: string | undefined
  readonly onDone: (value: CellValue, goOn: GoOn) => void
  readonly onCancel: () => void
}

/** A row always has a name: an empty one leaves what it was. */
export function NameEditor({ value, typed, onDone, onCancel }: Props) {
  const [text, setText] = useState(typed ?? value)
  const finish = (goOn: GoOn) => (text.trim() === '' ? onCancel() : onDone(text.trim(), goOn))
  return (
    <input
      autoFocus
      aria-label="Name"
      maxLength={200}
      className="absolute inset-0 z-20 w-full border-2 border-primary bg-base-100 px-1.5 font-semibold outline-none"
      value={text}
      onChange={event => setText(event.target.value)}
      onKeyDown={event => onEditorKey(event, { finish, onCancel })}
      onBlur={() => finish('stay')}
    />
  )
}
