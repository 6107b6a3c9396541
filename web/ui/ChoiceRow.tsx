import type { ReactNode } from 'react'

interface Props {
  readonly name: string
  readonly isChosen: boolean
  readonly onChoose: () => void
  readonly children: ReactNode
}

/** A row of a table that opens a panel: anywhere by mouse, by its name for everybody else. */
export const ChoiceRow = ({ name, isChosen, onChoose, children }: Props) => (
  <tr aria-selected={isChosen} className="cursor-pointer" onClick={onChoose}>
    <td className="whitespace-nowrap">
      <button type="button" className="cursor-pointer font-semibold hover:underline" onClick={onChoose}>
        {name}
      </button>
    </td>
    {children}
  </tr>
)
