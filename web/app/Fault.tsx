import { Link } from 'react-router'
import { Entry } from '../ui/SignInFrame.tsx'

/** Shown where a page could not be drawn: our fault, and nothing of it was changed. */
export const Fault = () => (
  <Entry title="This page cannot be shown">
    <p className="mb-4">
      Something went wrong on our side. Nothing was changed. What you typed on other pages is kept.
    </p>
    <p className="flex gap-5">
      <button type="button" className="btn-main" onClick={() => location.reload()}>
        Reload the page
      </button>
      <Link className="link self-center" to="/" reloadDocument>
        Go to your workspaces
      </Link>
    </p>
  </Entry>
)
