import { useEffect, useEffectEvent, useState } from 'react'
import { useSearchParams } from 'react-router'
import type { SearchHit, SearchView } from '#contract/views/search.ts'
import type { Problem } from '#contract/views/problem.ts'
import { useSearchQuery } from '../../api/search.ts'
import { useHere } from '../../api/use-here.ts'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { Conditions } from './Conditions.tsx'
import { Hits } from './Hits.tsx'
import { queryOf, type Search } from './search-query.ts'

/** Everything that is found, with conditions that combine; all of it stands in the address. */
export function SearchScreen() {
  const { slug } = useHere()
  const [params, setParams] = useSearchParams()
  const [typed, setTyped] = useFindInAddress(params.get('find') ?? '', find =>
    setParams(before => withParam(before, 'find', find), { replace: true }),
  )
  const search: Search = Object.fromEntries(params)
  const { view, next, problem, onMore } = usePages(slug, search)
  const change = (name: keyof Search, value: string) => setParams(before => withParam(before, name, value))
  return (
    <main className="min-h-0 overflow-y-auto px-4 pt-3 pb-8 md:px-8">
      <div className="mx-auto max-w-4xl">
        <h1 className="mb-3 text-xl font-bold">Search</h1>
        <input
          className="field"
          aria-label="Search for"
          placeholder="Words, or beginnings of words"
          autoFocus
          value={typed}
          onChange={event => setTyped(event.target.value)}
        />
        <Conditions search={search} onChange={change} />
        <ProblemNote problem={problem} />
        {view !== undefined && <Hits view={view} search={search} />}
        {next !== null && (
          <button type="button" className="btn-plain mt-4" onClick={onMore}>
            Show more
          </button>
        )}
      </div>
    </main>
  )
}

/**
 * What is typed goes into the address once it rests, and does not fill the way back; an address that comes from elsewhere
 * (the way back, the field in the band) is what stands in the field then.
 */
function useFindInAddress(find: string, onRest: (find: string) => void) {
  const [field, setField] = useState({ typed: find, sent: find, seen: find })
  if (field.seen !== find)
    setField({ ...field, seen: find, ...(field.sent === find ? {} : { typed: find, sent: find }) })
  const { typed, sent } = field
  const rest = useEffectEvent(() => {
    setField(now => ({ ...now, sent: typed.trim() }))
    onRest(typed.trim())
  })
  useEffect(() => {
    if (typed.trim() === sent) return
    const timer = setTimeout(rest, 250)
    return () => clearTimeout(timer)
  }, [typed, sent])
  return [typed, (value: string) => setField(now => ({ ...now, typed: value }))] as const
}

function withParam(before: URLSearchParams, name: string, value: string): URLSearchParams {
  const next = new URLSearchParams(before)
  if (value === '') next.delete(name)
  else next.set(name, value)
  return next
}

interface Pages {
  readonly view: SearchView | undefined
  readonly next: number | null
  readonly problem: Problem | undefined
  readonly onMore: () => void
}

/** One page after another, below the ones before. */
function usePages(slug: string, search: Search): Pages {
  const key = JSON.stringify(search)
  const [from, setFrom] = useState({ key, at: 0 })
  const [openedAt] = useState(Date.now)
  const [before, setBefore] = useState<{ readonly key: string; readonly hits: readonly SearchHit[] }>({
    key,
    hits: [],
  })
  const at = from.key === key ? from.at : 0
  const query = queryOf(search, openedAt)
  const { data, currentData, error } = useSearchQuery(
    { slug, ...query, ...(at === 0 ? {} : { from: String(at) }) },
    { skip: Object.keys(query).length === 0 },
  )
  if (Object.keys(query).length === 0)
    return { view: undefined, next: null, problem: undefined, onMore: () => {} }
  const earlier = before.key === key ? before.hits : []
  const view =
    data === undefined
      ? undefined
      : { ...data, hits: [...earlier, ...(currentData ?? (at === 0 ? data : { hits: [] })).hits] }
  const next = currentData?.next ?? null
  return {
    view,
    next,
    problem: error as Problem | undefined,
    onMore: () => {
      if (next === null || view === undefined) return
      setBefore({ key, hits: view.hits })
      setFrom({ key, at: next })
    },
  }
}
