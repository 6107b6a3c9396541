import { useState } from 'react'
import type { SettingsView } from '#contract/settings-views.ts'
import { useChosenPicture } from '../../api/use-chosen-picture.ts'
import { useHere } from '../../api/use-here.ts'
import { Choice } from '../../ui/Choice.tsx'
import { ChoosePicture } from '../../ui/ChoosePicture.tsx'
import { Picture, pictureAddress } from '../../ui/Picture.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { Setting } from './Setting.tsx'

interface Props {
  readonly settings: SettingsView
}

export const TheWorkspace = ({ settings }: Props) => (
  <>
    <Name settings={settings} />
    <WorkspacePicture settings={settings} />
    <TimeZone settings={settings} />
    <DefaultRole settings={settings} />
  </>
)

function Name({ settings: { name } }: Props) {
  const [next, setNext] = useState(name)
  const isChanged = next.trim() !== '' && next.trim() !== name
  return (
    <Setting
      title="Name"
      does="Stands at the top of every page and in every mail, for everybody. Addresses of pages stay as they are."
      now={<strong>{name}</strong>}
      edit={isChanged ? { name: next.trim() } : undefined}
      act={`Name it ${next.trim()}`}
      onLeave={() => setNext(name)}
    >
      <TextField label="Name of the workspace" maxLength={200} value={next} onValue={setNext} />
    </Setting>
  )
}

function WorkspacePicture({ settings: { name, picture } }: Props) {
  const { slug } = useHere()
  const chosen = useChosenPicture(slug, picture)
  return (
    <Setting
      title="Picture"
      does="Stands beside the name, for everybody who is in the workspace."
      now={<Picture name={name} src={pictureAddress(slug, picture)} size={40} />}
      edit={chosen.id === picture ? undefined : { picture: chosen.id }}
      act="Take this picture"
      onLeave={() => {}}
    >
      <ChoosePicture name={name} {...chosen} />
    </Setting>
  )
}

function TimeZone({ settings: { timeZone } }: Props) {
  const [next, setNext] = useState(timeZone)
  const zones = Intl.supportedValuesOf('timeZone')
  return (
    <Setting
      title="Time zone"
      does="“Through a day” means the end of that day here. Ends that are set already stay at the instant at which they are."
      now={<strong>{timeZone.replaceAll('_', ' ')}</strong>}
      edit={next === timeZone ? undefined : { timeZone: next }}
      act={`Set it to ${next.replaceAll('_', ' ')}`}
      onLeave={() => setNext(timeZone)}
    >
      <Choice
        label="Time zone of the workspace"
        value={next}
        options={[...new Set([timeZone, ...zones])].map(value => ({
          value,
          name: value.replaceAll('_', ' '),
        }))}
        onValue={setNext}
      />
    </Setting>
  )
}

function DefaultRole({ settings: { defaultRole, roles } }: Props) {
  const { workspace } = useHere()
  const [next, setNext] = useState(defaultRole)
  const nameOf = (id: string) => roles.find(role => role.id === id)?.name ?? ''
  return (
    <Setting
      title="Role of new members"
      does="Whoever is invited as a member holds it, where nothing else is offered. Who is here keeps what they hold."
      now={<strong>{nameOf(defaultRole)}</strong>}
      edit={next === defaultRole ? undefined : { defaultRole: next }}
      act={`Give new members ${nameOf(next)}`}
      onLeave={() => setNext(defaultRole)}
    >
      <Choice
        label="Role"
        value={next}
        options={[...new Set([defaultRole, ...workspace.roles.map(role => role.id)])].map(value => ({
          value,
          name: nameOf(value),
        }))}
        onValue={setNext}
      />
    </Setting>
  )
}
