import { Navigate } from 'react-router'
import { useTreeQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { TwoSentences } from '../../ui/TwoSentences.tsx'

/** Before a place is chosen. */
export function Welcome() {
  const { slug, workspace } = useHere()
  const { data: tree } = useTreeQuery(slug)
  const [only, ...others] = tree?.opened ?? []
  // A guest who came for one place is led to it.
  if (workspace.me.kind === 'guest' && only !== undefined && others.length === 0)
    return <Navigate to={`/at/${slug}/content/${only.id}`} replace />
  return (
    <main className="max-w-xl px-6 py-8">
      <h1 className="mb-3 text-xl font-bold">{workspace.name}</h1>
      <p className="mb-2">Choose a place on the left. The gauge beside each name shows your access there.</p>
      <TwoSentences />
    </main>
  )
}
