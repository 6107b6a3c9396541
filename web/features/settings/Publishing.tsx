import { useState } from 'react'
import type { SettingsView } from '#contract/views/workspace.ts'
import { counted } from '#core/words/english.ts'
import { Tick } from '../../ui/Tick.tsx'
import { Setting } from './Setting.tsx'

interface Props {
  readonly settings: SettingsView
}

/** What leaves the workspace: on the web, and on the screens of people who may only look. */
export const Publishing = ({ settings }: Props) => (
  <>
    <OnTheWeb settings={settings} />
    <MarkedPreviews settings={settings} />
  </>
)

function OnTheWeb({ settings: { allowsPublishing, published } }: Props) {
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

function MarkedPreviews({ settings: { marksPreviews } }: Props) {
  const [next, setNext] = useState(marksPreviews)
  return (
    <Setting
      title="Marked previews"
      does="People with Preview look at files and cannot download them. If this is on, what they see has their name and the day written across it."
      now={<strong>{marksPreviews ? 'On' : 'Off'}</strong>}
      edit={next === marksPreviews ? undefined : { marksPreviews: next }}
      label={next ? 'Mark previews' : 'Stop marking previews'}
      onLeave={() => setNext(marksPreviews)}
    >
      <Tick isOn={next} onTick={setNext}>
        Name and day stand across previews
      </Tick>
    </Setting>
  )
}
