import { useState } from 'react'
import { Link } from 'react-router'
import type { SettingsView } from '#contract/settings-views.ts'
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
        Welcome sets and join links stand under{' '}
        <Link className="act" to={`/at/${slug}/people/ways-in`}>
          People, Ways in
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
      title="How long an invitation works"
      does="Counts for invitations sent from now on. Whoever comes later asks for it anew."
      now={<strong>{dayWords(invitationDays)}</strong>}
      edit={isGood ? { invitationDays: days } : undefined}
      act={`Let invitations work for ${dayWords(days)}`}
      onLeave={() => setNext(String(invitationDays))}
    >
      <TextField label="Days" type="number" min={1} max={365} value={next} onValue={setNext} />
    </Setting>
  )
}

const dayWords = (days: number) => (days === 1 ? '1 day' : `${days} days`)

function Rules({ settings: { houseRules } }: Props) {
  const [next, setNext] = useState(houseRules)
  return (
    <Setting
      title="House rules"
      does="Whoever comes in, as a member or a guest, reads and accepts them first. Who is here already is not asked again."
      now={
        houseRules === '' ? (
          'There are none.'
        ) : (
          <p className="border-l-4 border-base-300 pl-3 whitespace-pre-line">{houseRules}</p>
        )
      }
      edit={next.trim() === houseRules ? undefined : { houseRules: next.trim() }}
      act={next.trim() === '' ? 'Take the house rules away' : 'Ask for these house rules'}
      onLeave={() => setNext(houseRules)}
    >
      <TextArea
        label="What is accepted on coming in"
        rows={6}
        maxLength={20000}
        value={next}
        onValue={setNext}
      />
    </Setting>
  )
}
