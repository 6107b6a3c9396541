import { useState } from 'react'
import type { TeamView } from '#contract/views/teams.ts'
import type { Team } from '#core/people/person.ts'
import { useChosenPicture } from '../../api/use-chosen-picture.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Choice } from '../../ui/Choice.tsx'
import { ChoosePicture } from '../../ui/ChoosePicture.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { Tick } from '../../ui/Tick.tsx'
import { joiningWords } from './joining.ts'

const joinings = Object.entries(joiningWords).map(([value, { word }]) => ({
  value: value as Team['joining'],
  name: word,
}))

/** How a team is called, how one joins and whether guests may be in it; what that opens and closes first. */
export function TeamSettings({ team, onDone }: { readonly team: TeamView; readonly onDone: () => void }) {
  const { slug } = useHere()
  const [fields, setFields] = useState({
    name: team.name,
    note: team.note,
    joining: team.joining,
    welcomesGuests: team.welcomesGuests,
  })
  const picture = useChosenPicture(slug, team.picture)
  const edit = { kind: 'team.change', team: team.id, ...fields, picture: picture.id } as const
  const decision = useDecision([edit], `${fields.name} is changed.`, onDone)
  return (
    <Decision label="Save settings" onLeave={onDone} {...decision}>
      <ChoosePicture name={fields.name} {...picture} />
      <TextField
        label="Name"
        required
        maxLength={200}
        value={fields.name}
        onValue={name => setFields({ ...fields, name })}
      />
      <TextField label="Description" value={fields.note} onValue={note => setFields({ ...fields, note })} />
      <Choice
        label="How to join"
        value={fields.joining}
        options={joinings}
        onValue={joining => setFields({ ...fields, joining })}
      />
      <p className="quiet -mt-1 text-sm">{joiningWords[fields.joining].means}</p>
      <Tick isOn={fields.welcomesGuests} onTick={welcomesGuests => setFields({ ...fields, welcomesGuests })}>
        Allow guests
      </Tick>
    </Decision>
  )
}
