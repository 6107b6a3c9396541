import { useState } from 'react'
import type { SettingsView } from '#contract/settings-views.ts'
import { Tick } from '../../ui/Tick.tsx'
import { Setting } from './Setting.tsx'

export function Publishing({
  settings: { allowsPublishing, published },
}: {
  readonly settings: SettingsView
}) {
  const [next, setNext] = useState(allowsPublishing)
  return (
    <Setting
      title="Publishing to the web"
      does={`Who has publish at a place can show it to everybody on the web. Switched off, nothing can be read without signing in: ${published === 1 ? '1 place is' : `${published} places are`} published with what is in them.`}
      now={<strong>{allowsPublishing ? 'Allowed' : 'Switched off'}</strong>}
      edit={next === allowsPublishing ? undefined : { allowsPublishing: next }}
      act={next ? 'Allow publishing' : 'Switch publishing off'}
      onLeave={() => setNext(allowsPublishing)}
    >
      <Tick isOn={next} onTick={setNext}>
        Places may be published
      </Tick>
    </Setting>
  )
}
