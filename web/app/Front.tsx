import { Navigate } from 'react-router'
import { useSessionQuery } from '../api/api.ts'
import { ProblemNote } from '../ui/ProblemNote.tsx'
import type { Problem } from '#contract/views/problem.ts'

/** Leads on: to the first start, to signing in, to the workspace, or to the choice of one. */
export function Front() {
  const { data: session, error } = useSessionQuery()
  if (error !== undefined) return <ProblemNote problem={error as Problem} />
  if (session === undefined) return null
  if (!session.isSetUp) return <Navigate to="/set-up" replace />
  if (session.account === null) return <Navigate to="/sign-in" replace />
  const [only, ...others] = session.workspaces
  const isOnly = only !== undefined && others.length === 0 && session.invitations.length === 0
  return <Navigate to={isOnly ? `/at/${only.slug}` : '/workspaces'} replace />
}
