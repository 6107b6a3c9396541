/** How far it is, 0 to 1, and a way to stop it; or to ask for it again, once it was stopped. */
export type Waiting =
  { readonly done: number; readonly onStop: () => void } | { readonly onAgain: () => void }

/** An effect that is being worked out: how far it is, where that takes long, and a way to stop it. */
export function WorkingOut({ waiting }: { readonly waiting: Waiting | undefined }) {
  if (waiting === undefined) return <p className="quiet text-sm">Working out the effect …</p>
  if ('onAgain' in waiting)
    return (
      <p className="text-sm">
        The effect was not worked out.{' '}
        <button type="button" className="btn-inline" onClick={waiting.onAgain}>
          Work it out
        </button>
      </p>
    )
  return <Progress label="Working out the effect on many places" {...waiting} />
}

interface ProgressProps {
  readonly label: string
  readonly done: number
  readonly onStop: () => void
}

/** How far something is that takes long, and a way to stop it. */
export const Progress = ({ label, done, onStop }: ProgressProps) => (
  <p className="flex items-center gap-3 text-sm" role="status">
    <span className="shrink-0">{label}</span>
    <progress className="progress w-24" aria-label={label} max={1} value={done} />
    <button type="button" className="btn-inline" onClick={onStop}>
      Stop
    </button>
  </p>
)
