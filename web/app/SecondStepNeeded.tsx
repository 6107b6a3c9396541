import { Link } from 'react-router'
import { Entry } from '../ui/Entry.tsx'

/** Shown in place of a workspace whose rules ask for more at sign-in than one has set up. */
export const SecondStepNeeded = () => (
  <Entry title="A second step is asked for">
    <p className="mb-4">
      This workspace asks people with your role for a code from an app when they sign in. Set it up once; then
      the workspace opens.
    </p>
    <p className="flex gap-5">
      <Link className="btn btn-primary" to="/account">
        Set it up
      </Link>
      <Link className="btn-plain self-center" to="/workspaces">
        Your workspaces
      </Link>
    </p>
  </Entry>
)
