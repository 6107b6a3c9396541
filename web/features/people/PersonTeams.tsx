import { useState } from 'react'
import { Link } from 'react-router'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { PersonView } from '#contract/people-views.ts'
import type { TeamView } from '#contract/views.ts'
import { useTeamsQuery } from '../../api/api.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Combobox } from '../../ui/Combobox.tsx'
import { Decision } from '../../ui/Decision.tsx'

interface Act {
  readonly edit: EditRequest
  readonly act: string
  readonly said: string
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
      {person.teams.length === 0 && <p className="quiet">In no team.</p>}
      <ul>
        {person.teams.map(team => (
          <li key={team.id} className="flex items-baseline justify-between gap-3 py-0.5">
            <Link className="act" to={`/at/${slug}/teams/${team.id}`}>
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
      {act !== undefined && <Deciding key={act.act} act={act} onDone={() => setAct(undefined)} />}
    </section>
  )
}

const TakeOut = ({ person, team, onAct }: Part & { readonly team: PersonView['teams'][number] }) => (
  <button
    type="button"
    className="act text-sm"
    aria-label={`Take out of ${team.name}`}
    onClick={() =>
      onAct({
        edit: { kind: 'member.take', team: team.id, person: person.id },
        act: `Take ${person.name} out of ${team.name}`,
        said: `${person.name} is out of ${team.name}.`,
      })
    }
  >
    Take out
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
        label={`Put ${person.name} into a team`}
        placeholder="Put into a team, by its name"
        nobody="No such team that you may fill"
        options={offered.map(({ id, name, note }) => ({ value: id, name, note: note.slice(0, 24) }))}
        onChoose={({ value: team, name }) =>
          onAct({
            edit: { kind: 'member.add', team, person: person.id, lead: false, from: null, until: null },
            act: `Put ${person.name} into ${name}`,
            said: `${person.name} is in ${name} now.`,
          })
        }
      />
    </div>
  )
}

function Deciding({ act, onDone }: { readonly act: Act; readonly onDone: () => void }) {
  const decision = useDecision([act.edit], act.said, onDone)
  return <Decision act={act.act} onLeave={onDone} {...decision} />
}
