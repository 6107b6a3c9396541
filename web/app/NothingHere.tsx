import { Link } from 'react-router'

export const NothingHere = () => (
  <main className="mx-auto max-w-md px-6 py-16">
    <h1 className="mb-2 text-xl font-bold">There is nothing here that you can open.</h1>
    <p className="mb-4">The address may be wrong, or it is not shared with you.</p>
    <Link className="link" to="/">
      Go to your workspaces
    </Link>
  </main>
)
