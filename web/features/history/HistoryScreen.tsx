import { useState } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { useHistoryQuery } from '../../api/oversight.ts'
import { useHere } from '../../api/use-here.ts'
import { OversightHead } from '../../ui/OversightHead.tsx'
import { EntryPanel } from './AuditEntryPanel.tsx'
import { EntryRows } from './AuditEntryRows.tsx'
import { Filters } from './Filters.tsx'
import { type HistoryFilter, filterIn, paramsOf } from './filter.ts'

/** Change here, by whom and why, with what it did; the chosen entry at the right. */
export function HistoryScreen() {
  const { slug, workspace } = useHere()
  const { revision } = useParams()
  const [params, setParams] = useSearchParams()
  const navigate = useNavigate()
  const filter = filterIn(params)
  const open = (target: string) =>
    void navigate({ pathname: `/at/${slug}/oversight/history${target}`, search: params.toString() })
  return (
    <div className="beside [--panel:25rem]">
      <main className="min-h-0 overflow-y-auto px-4 py-3">
        <OversightHead me={workspace.me} />
        <Filters filter={filter} onFilter={next => setParams(paramsOf(next))} />
        <Entries
          key={params.toString()}
          filter={filter}
          chosen={revision}
          onChoose={each => open(`/${each}`)}
        />
      </main>
      {revision !== undefined && (
        <EntryPanel
          key={revision}
          revision={revision}
          onOpen={each => open(`/${each}`)}
          onClose={() => open('')}
        />
      )}
    </div>
  )
}

interface EntriesProps {
  readonly filter: HistoryFilter
  readonly chosen: string | undefined
  readonly onChoose: (revision: number) => void
}

/** A part at a time, the newest first. */
function Entries({ filter, chosen, onChoose }: EntriesProps) {
  const { slug } = useHere()
  const [befores, setBefores] = useState<readonly (number | undefined)[]>([undefined])
  const last = { slug, ...queryOf(filter, befores.at(-1)) }
  const { data } = useHistoryQuery(last)
  const isEmpty = befores.length === 1 && data?.entries.length === 0
  const { next = null } = data ?? {}
  if (isEmpty) return <p className="py-6">No entries that you can see. Remove a filter to see more.</p>
  return (
    <>
      <table className="sheet">
        <thead>
          <tr>
            <th scope="col" className="w-32">
              When
            </th>
            <th scope="col">Change</th>
            <th scope="col" className="w-56">
              Effect
            </th>
          </tr>
        </thead>
        {befores.map(before => (
          <Part
            key={before ?? 'newest'}
            filter={filter}
            before={before}
            chosen={chosen}
            onChoose={onChoose}
          />
        ))}
      </table>
      {next !== null && (
        <button type="button" className="btn-plain mt-3" onClick={() => setBefores([...befores, next])}>
          Show earlier entries
        </button>
      )}
    </>
  )
}

function Part({ filter, before, ...rest }: EntriesProps & { readonly before: number | undefined }) {
  const { slug } = useHere()
  const { data } = useHistoryQuery({ slug, ...queryOf(filter, before) })
  return <EntryRows entries={data?.entries ?? []} {...rest} />
}

const queryOf = (filter: HistoryFilter, before: number | undefined) => ({
  ...filter,
  ...(before === undefined ? {} : { before: String(before) }),
})
