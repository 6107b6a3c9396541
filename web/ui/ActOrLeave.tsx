interface Props {
  /** What happens, as the button says it. */
  readonly act: string
  readonly isDisabled: boolean
  readonly onLeave: () => void
  /** Puts it with other changes instead. */
  readonly onGather?: (() => void) | undefined
}

/** The foot of a form: the act itself, gathering it with others, or leaving it. */
export const ActOrLeave = ({ act, isDisabled, onLeave, onGather }: Props) => (
  <div className="flex flex-wrap items-center gap-2">
    <button className="btn-act" disabled={isDisabled}>
      {act}
    </button>
    {onGather !== undefined && (
      <button type="button" className="act px-1 text-sm" disabled={isDisabled} onClick={onGather}>
        Gather it
      </button>
    )}
    <button type="button" className="btn-plain ml-auto" onClick={onLeave}>
      Leave it
    </button>
  </div>
)
