import { Link } from 'react-router'
import { Entry } from '../ui/SignInFrame.tsx'

/** Shown in place of a workspace whose rules ask for more at sign-in than one has set up. */
export const SecondStepNeeded = () => (
  <Entry title="Two-step sign-in is required">
    <p className="mb-4">
      This workspace requires two-step sign-in for your role: when you sign in, you also enter a code from an
      app. Set it up once, then the workspace opens.
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
