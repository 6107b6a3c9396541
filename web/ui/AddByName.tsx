import { type ReactNode, useState } from 'react'
import { onSubmit } from './on-submit.ts'

interface Props {
  /** What the name is asked for by, and what stands in the field. */
  readonly label: string
  readonly isBusy: boolean
  /** Resolves to whether it was made: then the field is free for the next one. */
  readonly onAdd: (name: string) => Promise<boolean>
  /** What the button says. */
  readonly children: ReactNode
}

/** Makes something of which only a name is needed. */
export function AddByName({ label, isBusy, onAdd, children }: Props) {
  const [name, setName] = useState('')
  const add = async () => {
    if (await onAdd(name.trim())) setName('')
  }
  return (
    <form className="flex gap-2" onSubmit={onSubmit(add)}>
      <input
        className="field min-w-0"
        aria-label={label}
        placeholder={label}
        maxLength={200}
        value={name}
        onChange={event => setName(event.target.value)}
      />
      <button className="btn-plain" disabled={isBusy || name.trim() === ''}>
        {children}
      </button>
    </form>
  )
}
