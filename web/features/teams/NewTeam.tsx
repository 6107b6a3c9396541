import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import { levelActions } from '#core/levels/level.ts'
import type { Team } from '#core/people/person.ts'
import { usePeopleNamesQuery } from '../../api/api.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { Choice } from '../../ui/Choice.tsx'
import { Level } from '../../ui/Gauge.tsx'
import { type Given, LevelChoice } from '../../ui/LevelChoice.tsx'
import { Panel } from '../../ui/Panel.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { joiningWords } from './joining.ts'
import { onSubmit } from '../../ui/on-submit.ts'

interface Plan {
  readonly name: string
  readonly note: string
  readonly joining: Team['joining']
  readonly welcomesGuests: boolean
  readonly lead: string
  readonly level: Given
  /** The maker is steward of the home too, without being in the team. */
  readonly meToo: boolean
}

interface Props {
  readonly onClose: () => void
  readonly onMade: (team: string) => void
}

/** A team with its lead and its home, made in one act. */
export function NewTeam({ onClose, onMade }: Props) {
  const { slug, workspace } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const [plan, setPlan] = useState<Plan>({
    name: '',
    note: '',
    joining: 'request',
    welcomesGuests: false,
    lead: workspace.me.id,
    level: levelActions('Adder'),
    meToo: false,
  })
  const set = (part: Partial<Plan>) => setPlan({ ...plan, ...part })
  const submit = async () => {
    const { applied } = await apply(
      editsFor(plan, workspace.me.id),
      `The team ${plan.name.trim()} is created.`,
    )
    const made = applied?.made['new:team']
    if (made !== undefined) onMade(made)
  }
  return (
    <Panel title="Create team" onClose={onClose}>
      <form className="grid gap-4" onSubmit={onSubmit(submit)}>
        <TextField label="Name" required maxLength={200} value={plan.name} onValue={name => set({ name })} />
        <TextField label="Description" value={plan.note} onValue={note => set({ note })} />
        <Joining plan={plan} onPlan={set} />
        <LeadChoice lead={plan.lead} onLead={lead => set({ lead })} />
        <HomeFields plan={plan} onPlan={set} />
        <ProblemNote problem={problem} />
        <button className="btn btn-primary" disabled={isBusy || plan.name.trim() === ''}>
          Create team
        </button>
      </form>
    </Panel>
  )
}

interface PlanPart {
  readonly plan: Plan
  readonly onPlan: (part: Partial<Plan>) => void
}

function HomeFields({ plan, onPlan }: PlanPart) {
  const { workspace } = useHere()
  return (
    <fieldset className="border-t border-base-content pt-3">
      <legend className="sr-only">Its home</legend>
      <p className="label-line">Team home</p>
      <div className="grid grid-cols-[1fr_9rem] items-center gap-y-2">
        <span>Leads</span>
        <Level actions={levelActions('Steward')} />
        <span>Everyone in the team</span>
        <LevelChoice
          label="Everyone in the team"
          value={plan.level}
          own={workspace.ownLevels}
          atMost={levelActions('Curator')}
          onChange={level => onPlan({ level })}
        />
      </div>
      {plan.lead !== workspace.me.id && (
        <label className="mt-2 flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm border-base-content/60"
            checked={plan.meToo}
            onChange={event => onPlan({ meToo: event.target.checked })}
          />
          I am steward of the team home too, without being in the team
        </label>
      )}
    </fieldset>
  )
}

function Joining({ plan, onPlan }: PlanPart) {
  return (
    <div>
      <label>
        <span className="label-line">How to join</span>
        <select
          className="choice"
          value={plan.joining}
          onChange={event => onPlan({ joining: event.target.value as Team['joining'] })}
        >
          {Object.entries(joiningWords).map(([joining, { word }]) => (
            <option key={joining} value={joining}>
              {word}
            </option>
          ))}
        </select>
      </label>
      <p className="quiet mt-1 text-sm">{joiningWords[plan.joining].means}</p>
      <label className="mt-2 flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox checkbox-sm border-base-content/60"
          checked={plan.welcomesGuests}
          onChange={event => onPlan({ welcomesGuests: event.target.checked })}
        />
        Allow guests
      </label>
    </div>
  )
}

function LeadChoice({ lead, onLead }: { readonly lead: string; readonly onLead: (lead: string) => void }) {
  const { slug } = useHere()
  const { data: people = [] } = usePeopleNamesQuery(slug)
  const members = people.filter(person => person.kind === 'member' && person.status === 'active')
  return (
    <Choice
      label="Lead"
      value={lead}
      options={members.map(({ id, name }) => ({ value: id, name }))}
      onValue={onLead}
    />
  )
}

function editsFor(
  { name, note, joining, welcomesGuests, lead, level, meToo }: Plan,
  me: string,
): EditRequest[] {
  const grant = { kind: 'grant.add', node: 'new:home', from: null, until: null } as const
  const steward = levelActions('Steward')
  return [
    {
      kind: 'team.create',
      team: 'new:team',
      home: 'new:home',
      name: name.trim(),
      note,
      joining,
      welcomesGuests,
    },
    { kind: 'member.add', team: 'new:team', person: lead, lead: true, from: null, until: null },
    { ...grant, principal: 'leads:new:team', gives: steward },
    { ...grant, principal: 'team:new:team', gives: level },
    ...(meToo && lead !== me ? [{ ...grant, principal: `person:${me}`, gives: steward } as const] : []),
  ]
}
