interface Props<Value extends string> {
  readonly label: string
  readonly value: Value
  readonly options: readonly { readonly value: Value; readonly name: string }[]
  readonly onValue: (value: Value) => void
  /** The label is read and not shown. */
  readonly isQuiet?: boolean
}

/** One of a few things, by a labelled list that opens. */
export const Choice = <Value extends string>({
  label,
  value,
  options,
  onValue,
  isQuiet = false,
}: Props<Value>) => (
  <label className="block">
    {!isQuiet && <span className="label-line">{label}</span>}
    <select
      className="choice"
      aria-label={isQuiet ? label : undefined}
      value={value}
      onChange={event => onValue(event.target.value as Value)}
    >
      {options.map(option => (
        <option key={option.value} value={option.value}>
          {option.name}
        </option>
      ))}
    </select>
  </label>
)
