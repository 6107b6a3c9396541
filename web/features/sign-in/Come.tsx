import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { JoinLinkOfferView } from '#contract/views/onboarding.ts'
import type { Problem } from '#contract/views/problem.ts'
import { counted, listed, listedOr, placesWords } from '#core/words/english.ts'
import { useJoinByLinkMutation, useReadJoinLinkQuery } from '../../api/account.ts'
import { Entry } from '../../ui/SignInFrame.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'
import type { ByLinkProps } from './ByLink.tsx'
import { Lasting } from './Lasting.tsx'

/** Where a join link leads: an invitation goes to the address that one gives, or one is in at once. */
export function Come({ token, session }: ByLinkProps) {
  const { data: offer, error } = useReadJoinLinkQuery({ token })
  if (error !== undefined)
    return (
      <Entry title="Join link">
        <ProblemNote problem={error as Problem} />
      </Entry>
    )
  if (offer === undefined) return null
  return <Coming token={token} offer={offer} own={session.account?.mail} />
}

interface Props {
  readonly token: string
  readonly offer: JoinLinkOfferView
  /** The address of whoever is signed in. */
  readonly own: string | undefined
}

function Coming({ token, offer, own }: Props) {
  const [mail, setMail] = useState(own ?? '')
  const [come, { error, isLoading, data }] = useJoinByLinkMutation()
  const navigate = useNavigate()
  const submit = async () => {
    const { data } = await come({ token, mail })
    if (data?.slug != null) await navigate(`/at/${data.slug}`, { replace: true })
    else if (data?.invitation != null) await navigate('/workspaces', { replace: true })
  }
  return (
    <Entry title={`Join ${offer.workspace}`}>
      <p className="mb-3">
        <strong>{offer.by}</strong> invites you to join as a <strong>{offer.as}</strong>
        {offer.role !== null && `, with the role ${offer.role}`}
        {offered(offer)}.
      </p>
      <Lasting from={offer.from} until={offer.until} timeZone={offer.timeZone} />
      {data !== undefined ? (
        <p role="status" className="border-l-4 border-primary bg-base-200 px-3 py-2">
          Open your mail: the invitation was sent to {mail}, unless you have already joined.
        </p>
      ) : (
        <form className="grid gap-4" onSubmit={onSubmit(submit)}>
          <TextField
            label="Your mail address"
            type="email"
            autoComplete="username"
            required
            hint={
              offer.domains.length > 0
                ? `Use an address of ${listedOr(offer.domains)}.`
                : 'The invitation is sent there.'
            }
            value={mail}
            onValue={setMail}
          />
          {own !== undefined && (
            <p className="quiet text-sm">You are signed in as {own}. With this address you join at once.</p>
          )}
          <ProblemNote problem={error as Problem | undefined} />
          <button className="btn btn-primary" disabled={isLoading}>
            {own !== undefined && own === mail ? 'Join' : 'Send me the invitation'}
          </button>
        </form>
      )}
    </Entry>
  )
}

function offered({ teams, places }: JoinLinkOfferView): string {
  const parts = [
    ...(teams === 0 ? [] : [counted(teams, 'team', 'teams')]),
    ...(places === 0 ? [] : [placesWords(places)]),
  ]
  return parts.length === 0 ? '' : `, with access to ${listed(parts)}`
}
