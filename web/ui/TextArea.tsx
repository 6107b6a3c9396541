interface Props {
  readonly label: string
  readonly value: string
  readonly onValue: (value: string) => void
  readonly rows?: number
  readonly placeholder?: string
  readonly maxLength?: number
}

/** A labelled field of several lines. */
export const TextArea = ({ label, value, onValue, rows = 3, placeholder, maxLength }: Props) => (
  <label>
    <span className="label-line">{label}</span>
    <textarea
      className="area"
      rows={rows}
      placeholder={placeholder}
      maxLength={maxLength}
      value={value}
      onChange={event => onValue(event.target.value)}
    />
  </label>
)
