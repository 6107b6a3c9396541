import { useState } from 'react'
import type { SettingsView } from '#contract/views/workspace.ts'
import { counted } from '#core/words/english.ts'
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
      does={`People who can publish a place can make it readable for everybody on the web. If this is off, nothing can be read without signing in. ${counted(published, 'place is', 'places are')} published now.`}
      now={<strong>{allowsPublishing ? 'On' : 'Off'}</strong>}
      edit={next === allowsPublishing ? undefined : { allowsPublishing: next }}
      label={next ? 'Turn publishing on' : 'Turn publishing off'}
      onLeave={() => setNext(allowsPublishing)}
    >
      <Tick isOn={next} onTick={setNext}>
        Places can be published
      </Tick>
    </Setting>
  )
}
