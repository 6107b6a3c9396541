import { Link, Navigate } from 'react-router'
import { useSessionQuery } from '../api/api.ts'
import { ProblemNote } from '../ui/ProblemNote.tsx'
import type { Problem } from '#contract/problem.ts'

/** Leads on: to the first start, to signing in, or to the workspace. */
export function Front() {
  const { data: session, error } = useSessionQuery()
  if (error !== undefined) return <ProblemNote problem={error as Problem} />
  if (session === undefined) return null
  if (!session.isSetUp) return <Navigate to="/set-up" replace />
  if (session.account === null) return <Navigate to="/sign-in" replace />
  const [only, ...others] = session.workspaces
  if (only !== undefined && others.length === 0) return <Navigate to={`/at/${only.slug}`} replace />
  return (
    <main className="mx-auto max-w-md px-6 py-16">
      <h1 className="mb-4 text-xl font-bold">Your workspaces</h1>
      {only === undefined && <p>You are in no workspace now. Somebody who runs one can invite you.</p>}
      <ul>
        {session.workspaces.map(each => (
          <li key={each.slug} className="border-t border-base-300 py-2">
            <Link className="act" to={`/at/${each.slug}`}>
              {each.name}
            </Link>
          </li>
        ))}
      </ul>
    </main>
  )
}
