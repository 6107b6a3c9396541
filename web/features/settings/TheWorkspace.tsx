import { useState } from 'react'
import type { SettingsView } from '#contract/views/workspace.ts'
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
      does="Shown on every page and in every mail. The addresses of pages do not change."
      now={<strong>{name}</strong>}
      edit={isChanged ? { name: next.trim() } : undefined}
      label={`Rename to ${next.trim()}`}
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
      does="Shown beside the name of the workspace."
      now={<Picture name={name} src={pictureAddress(slug, picture)} size={40} />}
      edit={chosen.id === picture ? undefined : { picture: chosen.id }}
      label="Save picture"
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
      does="“Until 3 March” means the end of that day in this time zone. Existing end dates do not move."
      now={<strong>{timeZone.replaceAll('_', ' ')}</strong>}
      edit={next === timeZone ? undefined : { timeZone: next }}
      label={`Set to ${next.replaceAll('_', ' ')}`}
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
      does="People who are invited as members get this role if no other role is chosen. Existing members keep their roles."
      now={<strong>{nameOf(defaultRole)}</strong>}
      edit={next === defaultRole ? undefined : { defaultRole: next }}
      label={`Set to ${nameOf(next)}`}
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
