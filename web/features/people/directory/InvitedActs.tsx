import { type MouseEvent, useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import type { PersonView } from '#contract/views/people.ts'
import type { Problem } from '#contract/views/problem.ts'
import { usePassOnInvitationMutation } from '../../../api/people.ts'
import { useChange } from '../../../api/use-change.ts'
import { useHere } from '../../../api/use-here.ts'
import { say } from '../../../store/message.ts'
import { useAppDispatch } from '../../../store/store.ts'
import { isCopied } from '../../../ui/is-copied.ts'
import { Through } from '../../../ui/dates.tsx'

/** Until when a link works, or that it does not any more. */
export function LinkEnd({ until, timeZone }: { readonly until: number; readonly timeZone: string }) {
  const [openedAt] = useState(Date.now)
  return until <= openedAt ? (
    <span className="text-warning">has expired</span>
  ) : (
    <Through until={until} timeZone={timeZone} />
  )
}

/** On the row of somebody invited: sent anew, its link copied, changed (in the panel), withdrawn. */
export function InvitedActs({ person }: { readonly person: PersonView }) {
  const { acts, isBusy } = useActs(person)
  if (person.managed?.may.includes('invite') !== true) return null
  const onClick = (run: () => unknown) => (event: MouseEvent) => {
    event.stopPropagation()
    void run()
  }
  return (
    <span className="flex gap-3 text-sm">
      {acts.map(({ word, run }) => (
        <button
          key={word}
          type="button"
          className="btn-inline"
          aria-label={`${word}: ${person.name}`}
          disabled={isBusy}
          onClick={onClick(run)}
        >
          {word}
        </button>
      ))}
    </span>
  )
}

function useActs(person: PersonView) {
  const { slug } = useHere()
  const { apply, isBusy } = useChange(slug)
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const { search } = useLocation()
  const [askLink] = usePassOnInvitationMutation()
  const [copied, setCopied] = useState<boolean>()
  const sayWhy = ({ title, detail }: Problem) => dispatch(say({ text: `${title} ${detail}` }))
  const applied = async (kind: 'invitation.renew' | 'invitation.withdraw', confirmation: string) => {
    const { problem } = await apply([{ kind, person: person.id }], confirmation)
    if (problem !== undefined) sayWhy(problem)
  }
  const copy = async () => {
    const { data, error } = await askLink({ slug, id: person.id })
    if (data === undefined) sayWhy(error as Problem)
    else setCopied(await isCopied(data.address))
  }
  const change = () =>
    navigate(`/at/${slug}/people/${person.id}${search}`, { state: { isChangingInvitation: true } })
  const acts = [
    {
      word: 'Send again',
      run: () => applied('invitation.renew', `The invitation was sent again to ${person.mail}.`),
    },
    ...(person.managed?.may.includes('pass on') === true
      ? [{ word: copied === undefined ? 'Copy link' : copied ? 'Copied' : 'Open to copy', run: copy }]
      : []),
    { word: 'Change', run: change },
    {
      word: 'Withdraw',
      run: () => applied('invitation.withdraw', `The invitation of ${person.name} is withdrawn.`),
    },
  ]
  return { acts, isBusy }
}
