import { numberWords } from '#core/words/english.ts'

interface Props {
  readonly label: string
  readonly done: number
  readonly of: number
  readonly onStop?: () => void
}

/** How far a table is, and a way to stop. */
export const Running = ({ label, done, of, onStop }: Props) => (
  <div className="flex items-center gap-4 border-t border-base-content py-3">
    <progress className="progress grow" value={done} max={of} aria-label={label} />
    <span className="whitespace-nowrap tabular-nums" role="status">
      {numberWords(done)} of {numberWords(of)}
    </span>
    {onStop !== undefined && (
      <button type="button" className="btn-plain" onClick={onStop}>
        Stop
      </button>
    )}
  </div>
)
