import { useState } from 'react'
import { Link } from 'react-router'
import type { RequestView, TeamWantedView } from '#contract/views/requests.ts'
import type { TeamView } from '#contract/views/teams.ts'
import { counted } from '#core/words/english.ts'
import { toDecideOf, useRequestsQuery } from '../../api/requests.ts'
import { useChange } from '../../api/use-change.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Day } from '../../ui/dates.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { OpenedForm } from '../../ui/OpenedForm.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { ActOrLeave } from '../../ui/ActOrLeave.tsx'

/** Those who ask to be let in: each decided in one act, with what it opens first. */
export function Requests({ team }: { readonly team: TeamView }) {
  const { slug } = useHere()
  const { data } = useRequestsQuery(slug)
  const requests = toDecideOf(data, 'team').filter(({ wants }) => wants.team.id === team.id)
  if (requests.length === 0) return null
  return (
    <section aria-label="Requests" className="mb-4 border-y border-base-content py-2">
      <h3 className="mb-1 font-bold">{counted(requests.length, 'request to join', 'requests to join')}</h3>
      <ul>
        {requests.map(request => (
          <Request key={request.id} team={team} request={request} />
        ))}
      </ul>
    </section>
  )
}

function Request({
  team,
  request,
}: {
  readonly team: TeamView
  readonly request: RequestView<TeamWantedView>
}) {
  const { slug } = useHere()
  const [answer, setAnswer] = useState<'in' | 'declined'>()
  const { person, at, reason } = request
  return (
    <li className="border-t border-base-300 py-1.5">
      <div className="flex items-baseline justify-between gap-3">
        <span>
          <Link className="link font-semibold" to={`/at/${slug}/people/${person.id}`}>
            {person.name}
          </Link>
          <span className="quiet text-sm">
            , <Day at={at} />
          </span>
          {reason !== '' && <span className="block text-sm">“{reason}”</span>}
        </span>
        <span className="flex shrink-0 gap-3 text-sm">
          <button
            type="button"
            className="btn-inline"
            aria-label={`Accept: ${person.name}`}
            onClick={() => setAnswer('in')}
          >
            Accept
          </button>
          <button
            type="button"
            className="btn-inline"
            aria-label={`Decline: ${person.name}`}
            onClick={() => setAnswer('declined')}
          >
            Decline
          </button>
        </span>
      </div>
      {answer === 'in' && <LettingIn team={team} request={request} onDone={() => setAnswer(undefined)} />}
      {answer === 'declined' && (
        <Declining team={team} request={request} onDone={() => setAnswer(undefined)} />
      )}
    </li>
  )
}

interface Answering {
  readonly team: TeamView
  readonly request: RequestView<TeamWantedView>
  readonly onDone: () => void
}

function LettingIn({ team, request: { id, person }, onDone }: Answering) {
  const edit = { kind: 'request.accept', request: id, gives: { of: 'team' }, comment: '' } as const
  const decision = useDecision([edit], `${person.name} is added to ${team.name}.`, onDone)
  return <Decision label={`Accept ${person.name}`} onLeave={onDone} {...decision} />
}

function Declining({ request: { id, person }, onDone }: Answering) {
  const { slug } = useHere()
  const [comment, setComment] = useState('')
  const { apply, problem, isBusy } = useChange(slug)
  const submit = async () => {
    const { applied } = await apply(
      [{ kind: 'request.decline', request: id, comment }],
      `The request of ${person.name} is declined.`,
    )
    if (applied !== undefined) onDone()
  }
  return (
    <OpenedForm label={`Decline ${person.name}`} onAct={submit} onLeave={onDone}>
      <TextField label={`Message to ${person.name}`} maxLength={1000} value={comment} onValue={setComment} />
      <ProblemNote problem={problem} />
      <ActOrLeave label="Decline" isDisabled={isBusy} onLeave={onDone} />
    </OpenedForm>
  )
}

/** Asking to be let in oneself, and what became of it. */
export function Asking({ team }: { readonly team: TeamView }) {
  const { slug } = useHere()
  const [isOpen, setOpen] = useState(false)
  const [reason, setReason] = useState('')
  const { apply, problem, isBusy } = useChange(slug)
  const { myRequest, mayAsk, name } = team
  const ask = async () => {
    const { applied } = await apply(
      [{ kind: 'request.make', wants: { of: 'team', team: team.id }, reason }],
      `You requested to join ${name}.`,
    )
    if (applied !== undefined) setOpen(false)
  }
  const takeBack = () =>
    myRequest === null
      ? Promise.resolve()
      : apply(
          [{ kind: 'request.withdraw', request: myRequest.id }],
          `Your request to join ${name} is withdrawn.`,
        )
  return (
    <>
      {myRequest !== null && myRequest.declined === null && (
        <p className="mb-3">
          You requested to join on <Day at={myRequest.at} />. A lead decides.{' '}
          <button type="button" className="btn-inline" disabled={isBusy} onClick={() => void takeBack()}>
            Withdraw
          </button>
        </p>
      )}
      {myRequest?.declined != null && (
        <p className="mb-3 text-warning">
          Your request was declined{myRequest.declined === '' ? '.' : `: “${myRequest.declined}”`}
        </p>
      )}
      {mayAsk && !isOpen && (
        <button type="button" className="btn-main mb-4" onClick={() => setOpen(true)}>
          Request to join …
        </button>
      )}
      {isOpen && mayAsk && (
        <OpenedForm
          label={`Request to join ${name}`}
          className="mb-4 grid gap-3 bg-base-200 p-3"
          onAct={ask}
          onLeave={() => setOpen(false)}
        >
          <TextField label="Message to the leads" maxLength={1000} value={reason} onValue={setReason} />
          <ActOrLeave label={`Request to join ${name}`} isDisabled={isBusy} onLeave={() => setOpen(false)} />
        </OpenedForm>
      )}
      <ProblemNote problem={problem} />
    </>
  )
}
