import { useState } from 'react'
import { Link } from 'react-router'
import type { SettingsView } from '#contract/views/workspace.ts'
import { counted } from '#core/words/english.ts'
import { useHere } from '../../api/use-here.ts'
import { TextArea } from '../../ui/TextArea.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { Setting } from './Setting.tsx'

interface Props {
  readonly settings: SettingsView
}

export function ComingIn({ settings }: Props) {
  const { slug } = useHere()
  return (
    <>
      <LinkDays settings={settings} />
      <Rules settings={settings} />
      <p className="border-t border-base-content py-4">
        Join links and welcome sets are under{' '}
        <Link className="link" to={`/at/${slug}/people/onboarding`}>
          People
        </Link>
        .
      </p>
    </>
  )
}

function LinkDays({ settings: { invitationDays } }: Props) {
  const [next, setNext] = useState(String(invitationDays))
  const days = Number(next)
  const isGood = Number.isInteger(days) && days >= 1 && days <= 365 && days !== invitationDays
  return (
    <Setting
      title="Duration of invitations"
      does="Applies to new invitations. Later, an invitation has to be sent again."
      now={<strong>{dayWords(invitationDays)}</strong>}
      edit={isGood ? { invitationDays: days } : undefined}
      label={`Set to ${dayWords(days)}`}
      onLeave={() => setNext(String(invitationDays))}
    >
      <TextField label="Days" type="number" min={1} max={365} value={next} onValue={setNext} />
    </Setting>
  )
}

const dayWords = (days: number) => counted(days, 'day', 'days')

function Rules({ settings: { houseRules } }: Props) {
  const [next, setNext] = useState(houseRules)
  return (
    <Setting
      title="House rules"
      does="New members and guests accept the house rules before they join. People who have joined are not asked again."
      now={
        houseRules === '' ? (
          'No house rules.'
        ) : (
          <p className="border-l-4 border-base-300 pl-3 whitespace-pre-line">{houseRules}</p>
        )
      }
      edit={next.trim() === houseRules ? undefined : { houseRules: next.trim() }}
      label={next.trim() === '' ? 'Remove house rules' : 'Save house rules'}
      onLeave={() => setNext(houseRules)}
    >
      <TextArea label="House rules" rows={6} maxLength={20000} value={next} onValue={setNext} />
    </Setting>
  )
}
