import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { AccountLinkView } from '#contract/views/account.ts'
import type { Problem } from '#contract/views/problem.ts'
import { useReadAccountLinkQuery, useUseAccountLinkMutation } from '../../api/account.ts'
import { Entry } from '../../ui/SignInFrame.tsx'
import { NewPasswordField } from '../../ui/NewPasswordField.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { type ByLinkProps, SignedInAs } from './ByLink.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'

/** Where a link out of a mail leads: to a new password, or to confirming the address. */
export function AccountLink({ token, session }: ByLinkProps) {
  const { data: link, error } = useReadAccountLinkQuery({ token })
  if (error !== undefined)
    return (
      <Entry title="Link from a mail">
        <ProblemNote problem={error as Problem} />
      </Entry>
    )
  if (link === undefined) return null
  return link.purpose === 'address' ? (
    <Confirming token={token} session={session} mail={link.mail} />
  ) : (
    <NewPassword token={token} session={session} link={link} />
  )
}

function Confirming({ token, session, mail }: ByLinkProps & { readonly mail: string }) {
  const [confirm, { error, isLoading }] = useUseAccountLinkMutation()
  const navigate = useNavigate()
  const submit = async () => {
    const { error } = await confirm({ token })
    if (error === undefined) await navigate('/', { replace: true })
  }
  return (
    <Entry title="Confirm your address">
      <SignedInAs session={session} mail={mail} />
      <form className="grid gap-4" onSubmit={onSubmit(submit)}>
        <p>
          You opened a link that was sent to <strong>{mail}</strong>.
        </p>
        <ProblemNote problem={error as Problem | undefined} />
        <button className="btn btn-primary" disabled={isLoading}>
          Confirm address
        </button>
      </form>
    </Entry>
  )
}

function NewPassword({ token, session, link }: ByLinkProps & { readonly link: AccountLinkView }) {
  const [password, setPassword] = useState('')
  const [endsTwoStep, setEnds] = useState(false)
  const [open, { error, isLoading }] = useUseAccountLinkMutation()
  const navigate = useNavigate()
  const submit = async () => {
    const { error } = await open({ token, password, endsTwoStep })
    const message =
      'Your password is changed and you are signed out everywhere. Sign in with the new password.'
    if (error === undefined) await navigate('/sign-in', { replace: true, state: { message } })
  }
  return (
    <Entry title="Choose a new password">
      <SignedInAs session={session} mail={link.mail} />
      <form className="grid gap-4" onSubmit={onSubmit(submit)}>
        <p>
          For <strong>{link.mail}</strong>. This signs you out on all devices.
        </p>
        <NewPasswordField
          label="New password"
          of={{ mail: link.mail, words: [] }}
          value={password}
          onValue={setPassword}
        />
        {link.purpose === 'sign-in' && link.hasTwoStep && (
          <label className="flex items-start gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm mt-0.5 border-base-content/60"
              checked={endsTwoStep}
              onChange={event => setEnds(event.target.checked)}
            />
            <span>I have lost the app and the recovery codes for two-step sign-in. Turn it off.</span>
          </label>
        )}
        <ProblemNote problem={error as Problem | undefined} />
        <button className="btn btn-primary" disabled={isLoading}>
          Save password
        </button>
      </form>
    </Entry>
  )
}
