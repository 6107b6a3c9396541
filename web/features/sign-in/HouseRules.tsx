interface Props {
  readonly text: string
  readonly agrees: boolean
  readonly onAgrees: (agrees: boolean) => void
}

/** What the workspace asks of whoever comes in; nothing if it asks nothing. */
export const HouseRules = ({ text, agrees, onAgrees }: Props) =>
  text !== '' && (
    <section aria-label="House rules" className="border-y border-base-300 py-3">
      <h2 className="label-line">House rules</h2>
      <p className="mb-3 max-h-60 overflow-y-auto whitespace-pre-line" tabIndex={0}>
        {text}
      </p>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox checkbox-sm border-base-content/60"
          required
          checked={agrees}
          onChange={event => onAgrees(event.target.checked)}
        />
        I accept the house rules
      </label>
    </section>
  )
