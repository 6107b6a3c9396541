interface Props {
  /** What happens, as the button says it. */
  readonly act: string
  readonly isDisabled: boolean
  readonly onLeave: () => void
}

/** The foot of a form: the act itself, or leaving it. */
export const ActOrLeave = ({ act, isDisabled, onLeave }: Props) => (
  <div className="flex flex-wrap justify-between gap-2">
    <button className="btn-act" disabled={isDisabled}>
      {act}
    </button>
    <button type="button" className="btn-plain" onClick={onLeave}>
      Leave it
    </button>
  </div>
)
