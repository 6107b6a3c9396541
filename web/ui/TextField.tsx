import { type ComponentProps, useId } from 'react'

interface Props extends Omit<ComponentProps<'input'>, 'onChange' | 'value'> {
  readonly label: string
  readonly hint?: string
  /** The hint changes while one types, and is read out then. */
  readonly isHintLive?: boolean
  readonly value: string
  readonly onValue: (value: string) => void
}

/** A labelled field of one line. */
export function TextField({ label, hint, isHintLive = false, value, onValue, ...input }: Props) {
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
        <p id={`${id}-hint`} className="quiet mt-1 text-sm" aria-live={isHintLive ? 'polite' : undefined}>
          {hint}
        </p>
      )}
    </div>
  )
}
