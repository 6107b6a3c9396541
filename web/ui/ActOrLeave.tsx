interface Props {
  /** What happens, as the button says it. */
  readonly label: string
  readonly isDisabled: boolean
  /** It takes something away: in the colour of warning. */
  readonly isDrastic?: boolean
  readonly onLeave: () => void
  /** Puts it with other changes instead. */
  readonly onAddToDraft?: (() => void) | undefined
}

/** The foot of a form: the act itself, adding it to the draft, or leaving it. */
export const ActOrLeave = ({ label, isDisabled, isDrastic = false, onLeave, onAddToDraft }: Props) => (
  <div className="flex flex-wrap items-center gap-2">
    <button className={isDrastic ? 'btn-drastic' : 'btn-main'} disabled={isDisabled}>
      {label}
    </button>
    {onAddToDraft !== undefined && (
      <button
        type="button"
        className="btn-inline px-1 text-sm"
        disabled={isDisabled}
        // Like the act itself: not while a field of the form is wrong.
        onClick={event => {
          if (event.currentTarget.form?.reportValidity() !== false) onAddToDraft()
        }}
      >
        Add to draft
      </button>
    )}
    <button type="button" className="btn-plain ml-auto" onClick={onLeave}>
      Cancel
    </button>
  </div>
)
