import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { ChannelView, TeamView } from '#contract/views/teams.ts'
import { counted, listed } from '#core/words/english.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { useReceivers } from '../../api/use-receivers.ts'
import { Decision } from '../../ui/Decision.tsx'
import type { Named } from '../../ui/PrincipalList.tsx'
import { Restriction } from '../../ui/Restriction.tsx'
import { TextField } from '../../ui/TextField.tsx'

/** The channels that one reads or keeps: made and settled here, before anybody writes in them. */
export function Channels({ team }: { readonly team: TeamView }) {
  const { channels, mayCreateChannels } = team
  const [open, setOpen] = useState<string>()
  const close = () => setOpen(undefined)
  if (channels.length === 0 && !mayCreateChannels) return null
  return (
    <section aria-label="Channels" className="mb-4">
      <h3 className="mb-1 font-bold">Channels</h3>
      {channels.length === 0 && <p className="quiet text-sm">This team has no channel.</p>}
      <ul>
        {channels.map(channel => (
          <li key={channel.id} className="border-t border-base-300 py-1.5">
            <Told channel={channel} team={team} />
            {channel.mayChange && open !== channel.id && (
              <button
                type="button"
                className="btn-inline mt-1 text-sm"
                aria-label={`Change the channel ${channel.name}`}
                onClick={() => setOpen(channel.id)}
              >
                Change …
              </button>
            )}
            {open === channel.id && <Changing team={team} channel={channel} onDone={close} />}
          </li>
        ))}
      </ul>
      {mayCreateChannels && open !== 'new' && (
        <button type="button" className="btn-inline mt-1.5 text-sm" onClick={() => setOpen('new')}>
          Create channel …
        </button>
      )}
      {open === 'new' && <Creating team={team} onDone={close} />}
      {mayCreateChannels && (
        <p className="quiet mt-1.5 text-sm">People can write in channels in a later version.</p>
      )}
    </section>
  )
}

function Told({ channel, team }: { readonly channel: ChannelView; readonly team: TeamView }) {
  const { name, note, only, isArchived, mayRead } = channel
  return (
    <>
      <p>
        <strong>{name}</strong>
        {isArchived && <span className="text-sm text-warning"> · archived</span>}
      </p>
      {note !== '' && <p className="text-sm">{note}</p>}
      <p className="quiet text-sm">
        {only === null
          ? `Everyone in ${team.name} reads it: ${counted(team.people.length, 'person', 'people')}.`
          : only.length === 0
            ? 'Restricted: nobody reads it.'
            : `Restricted: ${listed(only.map(each => each.name))}, as far as they are in ${team.name}.`}
        {!mayRead && ' You do not read it.'}
      </p>
    </>
  )
}

interface ChangingProps {
  readonly team: TeamView
  readonly channel: ChannelView
  readonly onDone: () => void
}

function Changing({ team, channel, onDone }: ChangingProps) {
  const [fields, setFields] = useState<Fields>({
    name: channel.name,
    note: channel.note,
    only: channel.only,
  })
  const [archived, setArchived] = useState(channel.isArchived)
  const edit = { kind: 'channel.change', channel: channel.id, ...sent(fields), archived } as const
  return (
    <Settled
      edit={edit}
      label="Save channel"
      confirmation={`The channel ${fields.name} is changed.`}
      onDone={onDone}
    >
      <ChannelFields team={team} fields={fields} onFields={setFields} />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox checkbox-sm border-base-content/60"
          checked={archived}
          onChange={event => setArchived(event.target.checked)}
        />
        Archived: it stays readable, nobody can write in it
      </label>
    </Settled>
  )
}

function Creating({ team, onDone }: Omit<ChangingProps, 'channel'>) {
  const [fields, setFields] = useState<Fields>({ name: '', note: '', only: null })
  const edit = { kind: 'channel.create', channel: 'new:channel', team: team.id, ...sent(fields) } as const
  return (
    <Settled
      edit={fields.name.trim() === '' ? undefined : edit}
      label="Create channel"
      confirmation={`The channel ${fields.name.trim()} is created.`}
      onDone={onDone}
    >
      <ChannelFields team={team} fields={fields} onFields={setFields} />
    </Settled>
  )
}

interface Fields {
  readonly name: string
  readonly note: string
  readonly only: readonly Named[] | null
}

const sent = ({ name, note, only }: Fields) => ({
  name: name.trim(),
  note: note.trim(),
  only: only === null ? null : only.map(each => each.principal),
})

interface SettledProps {
  readonly edit: EditRequest | undefined
  readonly label: string
  readonly confirmation: string
  readonly onDone: () => void
  readonly children: React.ReactNode
}

const nothing: readonly EditRequest[] = []

function Settled({ edit, label, confirmation, onDone, children }: SettledProps) {
  const decision = useDecision(edit === undefined ? nothing : [edit], confirmation, onDone)
  return (
    <Decision label={label} isWaiting={edit === undefined} onLeave={onDone} {...decision}>
      {children}
    </Decision>
  )
}

interface FieldsProps {
  readonly team: TeamView
  readonly fields: Fields
  readonly onFields: (fields: Fields) => void
}

function ChannelFields({ team, fields, onFields }: FieldsProps) {
  const { slug } = useHere()
  const { receivers, noteOf } = useReceivers(slug)
  const inTeam = new Set(team.people.map(each => `person:${each.id}`))
  return (
    <>
      <TextField
        label="Name"
        required
        maxLength={200}
        value={fields.name}
        onValue={name => onFields({ ...fields, name })}
      />
      <TextField label="Description" value={fields.note} onValue={note => onFields({ ...fields, note })} />
      <Restriction
        title="Who reads it"
        everyone={`Everyone in ${team.name}`}
        chosen={fields.only}
        options={receivers
          .filter(({ principal, kind }) => kind === 'team' || kind === 'leads' || inTeam.has(principal))
          .map(each => ({ ...each, note: noteOf(each) }))}
        onChosen={only => onFields({ ...fields, only })}
      />
    </>
  )
}
