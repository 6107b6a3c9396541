import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import type { TeamView } from '#contract/views/teams.ts'
import { useTeamsQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { AbsentPanel } from '../../ui/AbsentPanel.tsx'
import { ChoiceRow } from '../../ui/ChoiceRow.tsx'
import { NewTeam } from './NewTeam.tsx'
import { TeamPanel } from './TeamPanel.tsx'
import { joiningWords } from './joining.ts'

/** The teams that one knows of, with the chosen one or a new one at the right. */
export function TeamsScreen() {
  const { slug, workspace } = useHere()
  const { id } = useParams()
  const navigate = useNavigate()
  const { data } = useTeamsQuery(slug)
  const teams = data ?? []
  const [search, setSearch] = useState('')
  const open = (target: string) => void navigate(`/at/${slug}/teams${target}`)
  const mayCreate = workspace.me.privileges.includes('create teams')
  const chosen = teams.find(team => team.id === id)
  const isMaking = id === 'new' && mayCreate
  const shown = teams.filter(team =>
    `${team.name} ${team.note}`.toLowerCase().includes(search.trim().toLowerCase()),
  )
  return (
    <div className="beside [--panel:25rem]">
      <main className="@container min-h-0 overflow-y-auto px-4 py-3">
        <div className="mb-3 flex items-center gap-6">
          <h1 className="text-xl font-bold">Teams</h1>
          <input
            className="field max-w-56"
            aria-label="Find teams"
            placeholder="Name or description"
            value={search}
            onChange={event => setSearch(event.target.value)}
          />
          {mayCreate && (
            <button type="button" className="btn-main ml-auto" onClick={() => open('/new')}>
              Create team …
            </button>
          )}
        </div>
        <TeamsTable teams={shown} chosen={id} onChoose={team => open(`/${team}`)} />
      </main>
      {isMaking && <NewTeam onClose={() => open('')} onMade={team => open(`/${team}`)} />}
      {chosen !== undefined && <TeamPanel key={chosen.id} team={chosen} onClose={() => open('')} />}
      {id !== undefined && data !== undefined && !isMaking && chosen === undefined && (
        <AbsentPanel what="Team" onClose={() => open('')} />
      )}
    </div>
  )
}

interface TableProps {
  readonly teams: readonly TeamView[]
  readonly chosen: string | undefined
  readonly onChoose: (id: string) => void
}

function TeamsTable({ teams, chosen, onChoose }: TableProps) {
  if (teams.length === 0)
    return <p className="py-6">No teams. A team is a group of people with a shared home for their work.</p>
  return (
    <table className="sheet">
      <thead>
        <tr>
          <th scope="col">Team</th>
          <th scope="col" className="max-md:hidden @max-2xl:hidden">
            Description
          </th>
          <th scope="col">Joining</th>
          <th scope="col">Leads</th>
          <th scope="col" className="text-right">
            People
          </th>
        </tr>
      </thead>
      <tbody>
        {teams.map(team => (
          <ChoiceRow
            key={team.id}
            name={team.name}
            isChosen={team.id === chosen}
            onChoose={() => onChoose(team.id)}
          >
            <td className="max-md:hidden @max-2xl:hidden">{team.note}</td>
            <td className="md:whitespace-nowrap">
              {team.isArchived && <span className="text-warning">archived · </span>}
              {joiningWords[team.joining].word}
              {team.welcomesGuests && ', guests allowed'}
            </td>
            <td>
              {team.people
                .filter(person => person.lead)
                .map(person => person.name)
                .join(', ')}
            </td>
            <td className="text-right">{team.people.length}</td>
          </ChoiceRow>
        ))}
      </tbody>
    </table>
  )
}
