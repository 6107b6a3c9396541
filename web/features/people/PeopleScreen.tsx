import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import type { PersonView } from '#contract/views.ts'
import { usePeopleQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { FilterWords } from '../../ui/FilterWords.tsx'
import { Invite } from './Invite.tsx'
import { PeopleTable } from './PeopleTable.tsx'
import { PersonPanel } from './PersonPanel.tsx'

const filters = ['Everybody', 'Members', 'Guests', 'Invited'] as const

const shows: Readonly<Record<(typeof filters)[number], (person: PersonView) => boolean>> = {
  Everybody: () => true,
  Members: person => person.kind === 'member',
  Guests: person => person.kind === 'guest',
  Invited: person => person.status === 'invited',
}

/** Everyone in the workspace and everyone invited, with the chosen one or an invitation at the right. */
export function PeopleScreen() {
  const { slug, workspace } = useHere()
  const { id } = useParams()
  const navigate = useNavigate()
  const { data: people = [] } = usePeopleQuery(slug)
  const [filter, setFilter] = useState<(typeof filters)[number]>('Everybody')
  const [search, setSearch] = useState('')
  const mayInvite = workspace.me.privileges.some(
    each => each === 'invite members' || each === 'invite guests',
  )
  const shown = people.filter(shows[filter]).filter(person => matches(person, search))
  const chosen = people.find(person => person.id === id)
  const open = (target: string) => void navigate(`/at/${slug}/people${target}`)
  const isInviting = id === 'invite' && mayInvite
  return (
    <div className={`grid min-h-0 ${isInviting || chosen ? 'grid-cols-[minmax(0,1fr)_25rem]' : ''}`}>
      <main className="min-h-0 overflow-y-auto px-4 py-3">
        <div className="mb-3 flex flex-wrap items-center gap-x-6 gap-y-2">
          <h1 className="text-xl font-bold">People</h1>
          <FilterWords label="Show" words={filters} chosen={filter} onChoose={setFilter} />
          <input
            className="field max-w-56"
            aria-label="Find people"
            placeholder="Name, address or team"
            value={search}
            onChange={event => setSearch(event.target.value)}
          />
          <span className="quiet text-sm">{shown.length} shown</span>
          {mayInvite && (
            <button type="button" className="btn-act ml-auto" onClick={() => open('/invite')}>
              Invite people
            </button>
          )}
        </div>
        <PeopleTable
          people={shown}
          chosen={chosen?.id}
          onChoose={person => open(`/${person}`)}
          timeZone={workspace.timeZone}
        />
      </main>
      {isInviting && <Invite people={people} onClose={() => open('')} />}
      {chosen !== undefined && <PersonPanel key={chosen.id} person={chosen} onClose={() => open('')} />}
    </div>
  )
}

function matches({ name, mail, teams }: PersonView, search: string): boolean {
  const text = [name, mail, ...teams.map(team => team.name)].join(' ').toLowerCase()
  return text.includes(search.trim().toLowerCase())
}
