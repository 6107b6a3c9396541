import { Link, useParams } from 'react-router'
import type { Problem } from '#contract/views/problem.ts'
import { ProblemNote } from './ProblemNote.tsx'

interface Props {
  readonly error?: unknown
  /** What is asked for came, and what the address names is not in it. */
  readonly isAbsent?: boolean
}

/** In the place of a screen: nothing while what it shows is on its way; where that was refused, why, and the way back. */
export function NotYet({ error, isAbsent = false }: Props) {
  const { slug } = useParams()
  if (error === undefined && !isAbsent) return <main aria-busy />
  return (
    <main className="min-h-0 overflow-y-auto px-4 py-6">
      <div className="mx-auto grid max-w-lg gap-4">
        <h1 className="text-xl font-bold">You cannot open this page.</h1>
        {error === undefined ? (
          <p>The address may be wrong, or it is not shared with you.</p>
        ) : (
          <ProblemNote problem={error as Problem} />
        )}
        <Link className="link justify-self-start" to={slug === undefined ? '/' : `/at/${slug}/content`}>
          Go to the content
        </Link>
      </div>
    </main>
  )
}
