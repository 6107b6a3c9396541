import { useState } from 'react'
import { Link, useLocation } from 'react-router'
import type { Problem } from '#contract/views/problem.ts'
import { useResetPasswordMutation } from '../../api/account.ts'
import { Entry } from '../../ui/SignInFrame.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'

/** Asks for a link to a new password. It says the same for every address. */
export function Forgotten() {
  const typed = (useLocation().state as { mail?: string } | null)?.mail ?? ''
  const [mail, setMail] = useState(typed)
  const [send, { error, isLoading, isSuccess }] = useResetPasswordMutation()
  return (
    <Entry title="New password">
      {isSuccess ? (
        <p role="status">
          If {mail} has an account here, a link to a new password was sent to it. The link works once, for one
          hour.
        </p>
      ) : (
        <form
          className="grid gap-4"
          onSubmit={onSubmit(async () => {
            await send({ mail })
          })}
        >
          <TextField
            label="Mail address"
            type="email"
            autoComplete="username"
            required
            value={mail}
            onValue={setMail}
          />
          <ProblemNote problem={error as Problem | undefined} />
          <button className="btn btn-primary" disabled={isLoading}>
            Send link
          </button>
        </form>
      )}
      <p className="mt-6 text-sm">
        <Link className="link" to="/sign-in">
          Back to sign-in
        </Link>
      </p>
    </Entry>
  )
}
