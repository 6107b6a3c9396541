import type { WhyAbout } from './Why.tsx'

interface Props {
  readonly name: string
  readonly about: WhyAbout
  readonly onWhy: (about: WhyAbout) => void
}

/** Asks why somebody has what stands beside it. */
export const WhyOf = ({ name, about, onWhy }: Props) => (
  <button
    type="button"
    className="btn-inline text-sm"
    aria-label={`Why does ${name} have this?`}
    onClick={() => onWhy(about)}
  >
    Why?
  </button>
)
