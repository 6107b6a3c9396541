import { type ComponentProps, useId } from 'react'

interface Props extends Omit<ComponentProps<'input'>, 'onChange' | 'value'> {
  readonly label: string
  readonly hint?: string
  readonly value: string
  readonly onValue: (value: string) => void
}

/** A labelled field of one line. */
export function TextField({ label, hint, value, onValue, ...input }: Props) {
  const id = useId()
  return (
    <div>
      <label htmlFor={id} className="label-line">
        {label}
      </label>
      <input
        {...input}
        id={id}
        className="field"
        value={value}
        aria-describedby={hint === undefined ? undefined : `${id}-hint`}
        onChange={event => onValue(event.target.value)}
      />
      {hint !== undefined && (
        <p id={`${id}-hint`} className="quiet mt-1 text-sm">
          {hint}
        </p>
      )}
    </div>
  )
}
