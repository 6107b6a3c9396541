import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { PersonView } from '#contract/views/people.ts'
import { usePeopleQuery } from '../../../api/people.ts'
import { counted } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Picture, pictureAddress } from '../../../ui/Picture.tsx'
import { NotYet } from '../../../ui/NotYet.tsx'
import { PeopleHead } from '../PeopleHead.tsx'
import { PersonPanel } from '../person/PersonPanel.tsx'

const pageSize = 100

/** Colleagues, for everybody: what each does, where, in which teams, and how to reach them. */
export function DirectoryScreen() {
  const { slug } = useHere()
  const { id } = useParams()
  const navigate = useNavigate()
  const [find, setFind] = useState('')
  const [pages, setPages] = useState(1)
  const { data, error } = usePeopleQuery({ slug, status: 'active', ...(find === '' ? {} : { find }) })
  const total = data?.total ?? 0
  if (error !== undefined) return <NotYet error={error} />
  return (
    <div className="beside [--panel:27rem]">
      <main className="min-h-0 overflow-y-auto px-4 pt-3 pb-6">
        <PeopleHead>
          <input
            className="field max-w-66"
            data-find
            aria-label="Find colleagues"
            placeholder="f  Name, title, department, team"
            value={find}
            onChange={event => {
              setFind(event.target.value)
              setPages(1)
            }}
          />
          <span className="quiet text-sm" role="status">
            {counted(total, 'colleague', 'colleagues')}
          </span>
        </PeopleHead>
        <ul
          aria-label="Colleagues"
          className={`grid gap-x-8 sm:grid-cols-2 ${id === undefined ? 'lg:grid-cols-3' : ''}`}
        >
          {Array.from({ length: pages }, (_, page) => (
            <Page key={page} from={page * pageSize} find={find} chosen={id} />
          ))}
        </ul>
        {pages * pageSize < total && (
          <button type="button" className="btn-plain mt-4" onClick={() => setPages(pages + 1)}>
            Show more
          </button>
        )}
      </main>
      {id !== undefined && (
        <PersonPanel key={id} id={id} onClose={() => void navigate(`/at/${slug}/people/directory`)} />
      )}
    </div>
  )
}

interface PageProps {
  readonly from: number
  readonly find: string
  readonly chosen: string | undefined
}

function Page({ from, find, chosen }: PageProps) {
  const { slug } = useHere()
  const { data } = usePeopleQuery({
    slug,
    status: 'active',
    ...(find === '' ? {} : { find }),
    ...(from === 0 ? {} : { from: String(from) }),
  })
  return data?.items.map(person => (
    <Colleague key={person.id} person={person} isChosen={person.id === chosen} />
  ))
}

function Colleague({ person, isChosen }: { readonly person: PersonView; readonly isChosen: boolean }) {
  const { slug } = useHere()
  const { id, name, title, department, country, mail, handle, picture, teams, kind } = person
  const work = [...new Set([title, department, country])].filter(Boolean).join(' · ')
  return (
    <li
      className={`flex gap-3 border-t border-base-300 py-2 pl-2 ${isChosen ? 'shadow-[inset_3px_0_0_var(--color-primary)]' : ''}`}
    >
      <Picture name={name} src={pictureAddress(slug, picture)} size={40} />
      <div className="min-w-0">
        <p className="truncate leading-6">
          <Link className="font-semibold hover:underline" to={`/at/${slug}/people/directory/${id}`}>
            {name}
          </Link>
          {kind === 'guest' && <span className="quiet text-sm"> · guest</span>}
          {handle !== null && <span className="quiet text-sm"> @{handle}</span>}
        </p>
        {work !== '' && (
          <p className="truncate text-sm" title={work}>
            {work}
          </p>
        )}
        <p className="truncate text-sm leading-6">
          <a className="link" href={`mailto:${mail}`}>
            {mail}
          </a>
        </p>
        <p className="quiet truncate text-sm">
          {teams
            .filter(team => !team.isForAll)
            .map(team => team.name)
            .join(', ')}
        </p>
      </div>
    </li>
  )
}
