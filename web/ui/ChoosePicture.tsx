import type { Problem } from '#contract/views/problem.ts'
import { Picture } from './Picture.tsx'
import { ProblemNote } from './ProblemNote.tsx'

interface Props {
  readonly name: string
  readonly src: string | null
  readonly isBusy: boolean
  readonly problem: Problem | undefined
  readonly onFile: (file: File | undefined) => void
  readonly onNone: () => void
}

/** A picture with the way to another one, or to none. */
export const ChoosePicture = ({ name, src, isBusy, problem, onFile, onNone }: Props) => (
  <div>
    <div className="flex items-center gap-4">
      <Picture name={name} src={src} size={52} />
      <label className="btn-plain focus-within:outline-2 focus-within:outline-primary">
        {isBusy ? 'Uploading …' : 'Choose a picture'}
        <input
          type="file"
          className="sr-only"
          accept="image/png,image/jpeg,image/webp,image/gif,image/avif"
          onChange={event => onFile(event.target.files?.[0])}
        />
      </label>
      {src !== null && (
        <button type="button" className="btn-inline text-sm" onClick={onNone}>
          Remove picture
        </button>
      )}
    </div>
    <ProblemNote problem={problem} />
  </div>
)
