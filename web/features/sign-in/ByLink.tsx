import type { ComponentType } from 'react'
import { Link, useLocation } from 'react-router'
import type { SessionView } from '#contract/views/account.ts'
import { useSessionQuery, useSignOutMutation } from '../../api/api.ts'

export interface ByLinkProps {
  /** It stands behind the #: no server and no log sees it on the way. */
  readonly token: string
  readonly session: SessionView
}

/** Where a link leads that was sent to somebody: once it is known who is signed in; anew for a second link in one tab. */
export function ByLink({ page: Page }: { readonly page: ComponentType<ByLinkProps> }) {
  const { hash } = useLocation()
  const { data: session } = useSessionQuery()
  const token = hash.slice(1)
  return session === undefined ? null : <Page key={token} token={token} session={session} />
}

interface Props {
  readonly session: SessionView
  /** Whom the link is for. */
  readonly mail: string
}

/** Says as whom one is signed in, and lets somebody else change over. */
export function SignedInAs({ session: { account }, mail }: Props) {
  const [signOut] = useSignOutMutation()
  if (account === null) return null
  if (account.mail === mail)
    return (
      <p className="mb-4 text-sm">
        You are signed in as <strong>{mail}</strong>.
      </p>
    )
  return (
    <div role="note" className="mb-4 border-l-4 border-warning pl-3 text-sm">
      <p>
        You are signed in as <strong>{account.mail}</strong>, but this link is for <strong>{mail}</strong>. If
        you continue, you do so as {mail}.
      </p>
      <p className="mt-1 flex items-baseline gap-4">
        <button type="button" className="btn-inline" onClick={() => void signOut()}>
          Sign out
        </button>
        <Link className="link" to="/">
          Stay signed in as {account.mail}
        </Link>
      </p>
    </div>
  )
}

export const isSignedInAs = ({ account }: SessionView, mail: string): boolean => account?.mail === mail
