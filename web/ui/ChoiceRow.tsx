import { type KeyboardEvent, type ReactNode, useEffect, useRef } from 'react'

interface Props {
  readonly name: ReactNode
  readonly isChosen: boolean
  readonly onChoose: () => void
  /** A name that is a sentence: it goes over several lines. */
  readonly isWrapping?: boolean
  /** What stands before the name. */
  readonly lead?: ReactNode
  readonly children: ReactNode
}

/** A row of a table that opens a panel: anywhere by mouse, by its name for everybody else. */
export function ChoiceRow({ name, isChosen, onChoose, isWrapping = false, lead, children }: Props) {
  const row = useRef<HTMLTableRowElement>(null)
  // Somebody who comes by a link finds the row that the panel is about.
  useEffect(() => {
    if (isChosen) row.current?.scrollIntoView({ block: 'nearest' })
  }, [isChosen])
  return (
    <tr ref={row} aria-selected={isChosen} className="cursor-pointer" onClick={onChoose}>
      {lead !== undefined && <td className="whitespace-nowrap">{lead}</td>}
      <td className={isWrapping ? '' : 'whitespace-nowrap'}>
        <button
          type="button"
          data-choice
          className="cursor-pointer text-left font-semibold hover:underline"
          onClick={onChoose}
          onKeyDown={walk}
        >
          {name}
        </button>
      </td>
      {children}
    </tr>
  )
}

/** Up and down through the rows of the table. */
function walk(event: KeyboardEvent<HTMLButtonElement>): void {
  const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0
  const table = event.currentTarget.closest('table')
  if (step === 0 || table === null) return
  const rows = [...table.querySelectorAll<HTMLElement>('[data-choice]')]
  rows[rows.indexOf(event.currentTarget) + step]?.focus()
  event.preventDefault()
}
