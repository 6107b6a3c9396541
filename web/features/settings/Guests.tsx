import { useState } from 'react'
import type { SettingsView } from '#contract/settings-views.ts'
import { levelActions } from '#core/levels/level.ts'
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
      title="Addresses of guests"
      field="guestDomains"
      domains={settings.guestDomains}
      does="Only addresses of these mail domains can be invited as guests. Who is here already stays."
    />
    <Domains
      title="Addresses of members"
      field="memberDomains"
      domains={settings.memberDomains}
      does="Only addresses of these mail domains can be invited as members, or be made members. Who is here already stays."
    />
  </>
)

function Ceiling({ settings: { guestCeiling, guests } }: Props) {
  const { workspace } = useHere()
  const [next, setNext] = useState<number>(guestCeiling)
  return (
    <Setting
      title="What guests can have at most"
      does={`Whatever is granted to a guest, this caps it, everywhere and at once: ${guests === 1 ? '1 guest' : `${guests} guests`} now. Guests never share, break inheritance or publish.`}
      now={<Level actions={guestCeiling} />}
      edit={next === guestCeiling ? undefined : { guestCeiling: next }}
      act="Cap guests at this"
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
      now={domains.length === 0 ? 'Any address is welcome.' : <strong>{domains.join(', ')}</strong>}
      edit={isChanged ? { [field]: next } : undefined}
      act={next.length === 0 ? 'Welcome any address' : `Welcome ${next.join(', ')} only`}
      onLeave={() => setText(domains.join(', '))}
    >
      <TextField
        label="Mail domains"
        hint="With commas between them. Empty: any address."
        placeholder="trust.example, college.example"
        value={text}
        onValue={setText}
      />
    </Setting>
  )
}
