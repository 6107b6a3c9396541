import { Link } from 'react-router'
import type { SearchHit, SearchView } from '#contract/views/search.ts'
import { useHere } from '../../api/use-here.ts'
import { Day } from '../../ui/dates.tsx'
import { KindIcon } from '../../ui/KindIcon.tsx'
import { MarkedWords } from '../../ui/MarkedWords.tsx'
import type { Search } from './search-query.ts'

interface Props {
  readonly view: SearchView
  readonly search: Search
}

/** What is found, the best first; people and teams stand before places. */
export function Hits({ view, search }: Props) {
  const { slug } = useHere()
  const { hits, people, teams, indexed } = view
  const isNothing = hits.length + people.length + teams.length === 0
  return (
    <>
      {indexed < 1 && (
        <p role="status" className="mb-2 bg-base-200 px-3 py-2 text-sm">
          What can be found is being collected: {Math.floor(indexed * 100)} % is done.
        </p>
      )}
      {people.length + teams.length > 0 && (
        <ul
          aria-label="People and teams"
          className="mb-3 flex flex-wrap gap-x-6 gap-y-1 border-t border-base-content pt-2"
        >
          {people.map(({ id, name, kind }) => (
            <li key={id}>
              <Link className="link" to={`/at/${slug}/people/directory/${id}`}>
                <MarkedWords of={name} />
              </Link>{' '}
              <span className="quiet text-sm">{kind}</span>
            </li>
          ))}
          {teams.map(({ id, name }) => (
            <li key={id}>
              <Link className="link" to={`/at/${slug}/teams/${id}`}>
                <MarkedWords of={name} />
              </Link>{' '}
              <span className="quiet text-sm">team</span>
            </li>
          ))}
        </ul>
      )}
      <ul aria-label="Places" className="border-t border-base-content">
        {hits.map(hit => (
          <Hit key={hit.id} hit={hit} />
        ))}
      </ul>
      <p role="status" className="quiet py-3">
        {isNothing && <Nothing search={search} />}
      </p>
    </>
  )
}

/** What would find more, where something would. */
function Nothing({ search: { find = '', ...conditions } }: Pick<Props, 'search'>) {
  const { slug } = useHere()
  const hasConditions = Object.keys(conditions).length > 0
  const more = find.trim().includes(' ') ? ' Fewer words find more.' : ''
  return (
    <>
      Nothing found{find === '' ? '' : ` for “${find}”`}.{more}{' '}
      {hasConditions && find !== '' && (
        <Link className="link" to={`/at/${slug}/search?find=${encodeURIComponent(find)}`}>
          Search for it without conditions
        </Link>
      )}
    </>
  )
}

const wherein: Readonly<Record<SearchHit['part'], string>> = {
  place: '',
  text: 'in its text',
  file: 'in the file',
  cells: 'in its cells',
}

function Hit({
  hit: { id, kind, name, path, part, excerpt, changedAt, changedBy },
}: {
  readonly hit: SearchHit
}) {
  const { slug } = useHere()
  return (
    <li className="border-b border-base-300 py-2">
      <p className="flex flex-wrap items-baseline gap-x-2">
        <KindIcon kind={kind} />
        <Link className="text-[1.05rem] font-semibold hover:underline" to={`/at/${slug}/content/${id}`}>
          <MarkedWords of={name} />
        </Link>
        <span className="quiet min-w-0 text-sm">{path}</span>
        <span className="quiet ml-auto text-sm">
          <Day at={changedAt} />
          {changedBy !== null && ` by ${changedBy}`}
        </span>
      </p>
      {excerpt !== null && (
        <p className="mt-0.5 pl-6 text-[0.95rem]">
          <MarkedWords of={excerpt} />
          {part !== 'place' && <span className="quiet text-sm"> · {wherein[part]}</span>}
        </p>
      )}
    </li>
  )
}
