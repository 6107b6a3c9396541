import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { InvitationView } from '#contract/views/account.ts'
import type { Problem } from '#contract/views/problem.ts'
import { api, useAcceptInvitationMutation, useReadInvitationQuery } from '../../api/api.ts'
import { useAppDispatch } from '../../store/store.ts'
import { Entry } from '../../ui/SignInFrame.tsx'
import { Level } from '../../ui/Gauge.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { CodeField } from '../../ui/CodeField.tsx'
import { NewPasswordField } from '../../ui/NewPasswordField.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { type ByLinkProps, isSignedInAs, SignedInAs } from './ByLink.tsx'
import { HouseRules } from './HouseRules.tsx'
import { Lasting } from './Lasting.tsx'
import { asksForCode } from './two-step.ts'

/** Where an invitation's link leads: who invites to what, and the way in. The token stands behind the #. */
export function Join({ token, session }: ByLinkProps) {
  const { data: invitation, error } = useReadInvitationQuery({ token })
  if (error !== undefined)
    return (
      <Entry title="Invitation">
        <ProblemNote problem={error as Problem} />
      </Entry>
    )
  return invitation === undefined ? null : <Offer token={token} session={session} invitation={invitation} />
}

interface OfferProps extends ByLinkProps {
  readonly invitation: InvitationView
}

function Offer({ token, session, invitation }: OfferProps) {
  return (
    <Entry title={`Join ${invitation.workspace}`}>
      <p className="mb-4">
        <strong>{invitation.by}</strong> invites you as a <strong>{invitation.as}</strong>
        {invitation.as === 'member' && invitation.role !== 'Member' && `, with the role ${invitation.role}`}.
      </p>
      {invitation.message !== '' && (
        <blockquote className="mb-4 border-l-4 border-base-300 pl-3">{invitation.message}</blockquote>
      )}
      <Lasting from={invitation.accessFrom} until={invitation.accessUntil} timeZone={invitation.timeZone} />
      <Offered invitation={invitation} />
      <SignedInAs session={session} mail={invitation.mail} />
      <Acceptance token={token} session={session} invitation={invitation} />
    </Entry>
  )
}

function Offered({ invitation: { teams, places } }: { readonly invitation: InvitationView }) {
  if (teams.length + places.length === 0) return null
  return (
    <dl className="mb-5">
      {teams.length > 0 && <dt className="label-line">Teams</dt>}
      {teams.map(team => (
        <dd key={team} className="border-t border-base-300 py-1">
          {team}
        </dd>
      ))}
      {places.length > 0 && <dt className="label-line mt-3">Shared with you</dt>}
      {places.map(place => (
        <dd key={place.name} className="flex justify-between border-t border-base-300 py-1">
          {place.name} <Level actions={place.actions} />
        </dd>
      ))}
    </dl>
  )
}

function Acceptance({ token, session, invitation }: OfferProps) {
  const [name, setName] = useState(invitation.name)
  const [password, setPassword] = useState('')
  const [agrees, setAgrees] = useState(false)
  const [code, setCode] = useState('')
  const [accept, { error, isLoading }] = useAcceptInvitationMutation()
  const [asked, setAsked] = useState(false)
  const needsCode = asked || asksForCode(error)
  if (needsCode !== asked) setAsked(needsCode)
  const navigate = useNavigate()
  const dispatch = useAppDispatch()
  const isOwn = isSignedInAs(session, invitation.mail)
  const submit = async () => {
    const { data } = await accept({
      token,
      ...(isOwn ? {} : { password }),
      ...(invitation.hasAccount ? {} : { name }),
      ...(needsCode ? { code } : {}),
      ...(invitation.houseRules === '' ? {} : { agrees }),
    })
    if (data === undefined) return
    // Where one is led to looks at who is signed in: that is known by now.
    await dispatch(api.util.upsertQueryData('session', undefined, data))
    await navigate('/', { replace: true })
  }
  return (
    <form className="grid gap-4" onSubmit={onSubmit(submit)}>
      {!isOwn && <Credentials {...{ invitation, name, setName, password, setPassword }} />}
      {needsCode && <CodeField code={code} onCode={setCode} isAlone />}
      <HouseRules text={invitation.houseRules} agrees={agrees} onAgrees={setAgrees} />
      <ProblemNote problem={asksForCode(error) ? undefined : (error as Problem | undefined)} />
      <button className="btn btn-primary" disabled={isLoading}>
        Accept invitation
      </button>
    </form>
  )
}

interface CredentialsProps extends Pick<OfferProps, 'invitation'> {
  readonly name: string
  readonly setName: (name: string) => void
  readonly password: string
  readonly setPassword: (password: string) => void
}

/** A name and a new password; or the password of the account that the address has already. */
function Credentials({ invitation, name, setName, password, setPassword }: CredentialsProps) {
  return (
    <>
      <p className="quiet text-sm">
        {invitation.hasAccount
          ? `You already have an account with the address ${invitation.mail}. Enter its password.`
          : `You will sign in with the address ${invitation.mail}.`}
      </p>
      {!invitation.hasAccount && (
        <TextField label="Your name" autoComplete="name" required value={name} onValue={setName} />
      )}
      {invitation.hasAccount ? (
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          required
          value={password}
          onValue={setPassword}
        />
      ) : (
        <NewPasswordField
          label="Password"
          of={{ mail: invitation.mail, words: [name, invitation.workspace] }}
          value={password}
          onValue={setPassword}
        />
      )}
    </>
  )
}
