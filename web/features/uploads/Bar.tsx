interface Props {
  readonly label: string
  /** From 0 to 1. */
  readonly done: number
}

/** How much of something is done. */
export const Bar = ({ label, done }: Props) => (
  <span
    role="progressbar"
    aria-label={label}
    aria-valuemin={0}
    aria-valuemax={100}
    aria-valuenow={Math.floor(done * 100)}
    className="inline-block h-2 w-40 shrink-0 border border-base-content/60"
  >
    <span className="block h-full bg-primary" style={{ width: `${100 * done}%` }} />
  </span>
)
