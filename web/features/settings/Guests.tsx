import { useState } from 'react'
import type { SettingsView } from '#contract/views/workspace.ts'
import { levelActions } from '#core/levels/level.ts'
import { counted, listed } from '#core/words/english.ts'
import { useHere } from '../../api/use-here.ts'
import { domainsIn } from '../../ui/domains.ts'
import { Level } from '../../ui/Gauge.tsx'
import { LevelChoice } from '../../ui/LevelChoice.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { Closing } from './Closing.tsx'
import { Setting } from './Setting.tsx'

interface Props {
  readonly settings: SettingsView
}

export const Guests = ({ settings }: Props) => (
  <>
    <Closing settings={settings} />
    <Ceiling settings={settings} />
    <Domains
      title="Mail domains of guests"
      field="guestDomains"
      domains={settings.guestDomains}
      does="Only addresses of these domains can be invited as guests. Existing guests stay."
    />
    <Domains
      title="Mail domains of members"
      field="memberDomains"
      domains={settings.memberDomains}
      does="Only addresses of these domains can be invited as members. Existing members stay."
    />
  </>
)

function Ceiling({ settings: { guestCeiling, guests } }: Props) {
  const { workspace } = useHere()
  const [next, setNext] = useState<number>(guestCeiling)
  return (
    <Setting
      title="Highest level of guests"
      does={`Guests never have more than this level, on all places. It applies at once to ${counted(guests, 'guest', 'guests')}. Guests can never share, break inheritance or publish.`}
      now={<Level actions={guestCeiling} />}
      edit={next === guestCeiling ? undefined : { guestCeiling: next }}
      label="Set highest level"
      onLeave={() => setNext(guestCeiling)}
    >
      <LevelChoice
        label="Level"
        value={next}
        own={workspace.ownLevels}
        atMost={levelActions('Curator')}
        onChange={given =>
          setNext(
            typeof given === 'number'
              ? given
              : (workspace.ownLevels.find(level => level.id === given)?.actions ?? guestCeiling),
          )
        }
      />
    </Setting>
  )
}

interface DomainsProps {
  readonly title: string
  readonly field: 'guestDomains' | 'memberDomains'
  readonly domains: readonly string[]
  readonly does: string
}

function Domains({ title, field, domains, does }: DomainsProps) {
  const [text, setText] = useState(domains.join(', '))
  const next = domainsIn(text)
  const isChanged = next.join() !== domains.join()
  return (
    <Setting
      title={title}
      does={does}
      now={domains.length === 0 ? 'Any domain.' : <strong>{listed(domains)}</strong>}
      edit={isChanged ? { [field]: next } : undefined}
      label={next.length === 0 ? 'Allow any domain' : `Allow only ${listed(next)}`}
      onLeave={() => setText(domains.join(', '))}
    >
      <TextField
        label="Mail domains"
        hint="Separated by commas. Empty: any domain."
        placeholder="trust.example, college.example"
        value={text}
        onValue={setText}
      />
    </Setting>
  )
}
