import { useState } from 'react'
import { Link } from 'react-router'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { PersonView } from '#contract/views/people.ts'
import type { TeamView } from '#contract/views/teams.ts'
import { useTeamsQuery } from '../../../api/api.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { useHere } from '../../../api/use-here.ts'
import { Combobox } from '../../../ui/Combobox.tsx'
import { Decision } from '../../../ui/Decision.tsx'

interface Act {
  readonly edit: EditRequest
  readonly label: string
  readonly confirmation: string
}

interface Part {
  readonly person: PersonView
  readonly onAct: (act: Act) => void
}

/** The teams of somebody, changed from their side. */
export function PersonTeams({ person }: { readonly person: PersonView }) {
  const { slug } = useHere()
  const { data: teams = [] } = useTeamsQuery(slug)
  const [act, setAct] = useState<Act>()
  const fillable = teams.filter(
    team => team.mayManage && !team.keptByDirectory && team.joining !== 'everyone' && !team.isArchived,
  )
  return (
    <section aria-label="Teams" className="mt-5 border-t border-base-content pt-3">
      <h3 className="mb-1 font-bold">Teams</h3>
      {person.teams.length === 0 && <p className="quiet">No teams.</p>}
      <ul>
        {person.teams.map(team => (
          <li key={team.id} className="flex items-baseline justify-between gap-3 py-0.5">
            <Link className="link" to={`/at/${slug}/teams/${team.id}`}>
              {team.name}
              {team.lead && ' (lead)'}
            </Link>
            {fillable.some(each => each.id === team.id) && (
              <TakeOut person={person} team={team} onAct={setAct} />
            )}
          </li>
        ))}
      </ul>
      <PutInto person={person} teams={fillable} onAct={setAct} />
      {act !== undefined && <Deciding key={act.label} act={act} onDone={() => setAct(undefined)} />}
    </section>
  )
}

const TakeOut = ({ person, team, onAct }: Part & { readonly team: PersonView['teams'][number] }) => (
  <button
    type="button"
    className="btn-inline text-sm"
    aria-label={`Remove from ${team.name}`}
    onClick={() =>
      onAct({
        edit: { kind: 'member.remove', team: team.id, person: person.id },
        label: `Remove ${person.name} from ${team.name}`,
        confirmation: `${person.name} is removed from ${team.name}.`,
      })
    }
  >
    Remove
  </button>
)

function PutInto({ person, teams, onAct }: Part & { readonly teams: readonly TeamView[] }) {
  const inTeams = new Set(person.teams.map(team => team.id))
  const offered = teams.filter(
    team => !inTeams.has(team.id) && (person.kind === 'member' || team.welcomesGuests),
  )
  if (offered.length === 0) return null
  return (
    <div className="mt-1">
      <Combobox
        label={`Add ${person.name} to a team`}
        placeholder="Add to team"
        nobody="No team found that you can add people to"
        options={offered.map(({ id, name, note }) => ({ value: id, name, note: note.slice(0, 24) }))}
        onChoose={({ value: team, name }) =>
          onAct({
            edit: { kind: 'member.add', team, person: person.id, lead: false, from: null, until: null },
            label: `Add ${person.name} to ${name}`,
            confirmation: `${person.name} is added to ${name}.`,
          })
        }
      />
    </div>
  )
}

function Deciding({ act, onDone }: { readonly act: Act; readonly onDone: () => void }) {
  const decision = useDecision([act.edit], act.confirmation, onDone)
  return (
    <Decision
      label={act.label}
      isDrastic={act.edit.kind === 'member.remove'}
      onLeave={onDone}
      {...decision}
    />
  )
}
