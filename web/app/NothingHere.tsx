import { Link } from 'react-router'
import type { Problem } from '#contract/views/problem.ts'

const nothing = {
  title: 'There is nothing here that you can open.',
  detail: 'The address may be wrong, or it is not shared with you.',
}

/** In the place of a workspace that one is not let into: why, where one may know it. */
export function NothingHere({ problem }: { readonly problem?: Problem | undefined }) {
  // Only what speaks of oneself is more than an address that leads nowhere.
  const { title, detail } = problem?.status === 403 ? problem : nothing
  return (
    <main className="mx-auto max-w-md px-6 py-16">
      <h1 className="mb-2 text-xl font-bold">{title}</h1>
      <p className="mb-4">{detail}</p>
      <Link className="link" to="/workspaces">
        Go to your workspaces
      </Link>
    </main>
  )
}
