import { useSearchParams } from 'react-router'
import type { PeopleQuery } from '#contract/requests.ts'

type Filter = Omit<PeopleQuery, 'from'>
export type FilterKey = keyof Filter

const keys: readonly FilterKey[] = ['find', 'as', 'status', 'role', 'team', 'only', 'sort', 'down']

/** What the list shows, as it stands in the address: the same words that the server takes. */
export function useFilter(): {
  readonly filter: Filter
  readonly set: (part: { readonly [K in FilterKey]?: string | undefined }) => void
} {
  const [params, setParams] = useSearchParams()
  const given = Object.fromEntries(
    keys.flatMap(key => (params.get(key) ? [[key, params.get(key)]] : [])),
  ) as Filter
  // Colleagues whom one does not look after stand in the directory.
  const filter: Filter = { ...given, kept: '1' }
  const set = (part: { readonly [K in FilterKey]?: string | undefined }) => {
    const next = Object.fromEntries(
      Object.entries({ ...given, ...part }).filter(([, value]) => value !== undefined && value !== ''),
    ) as Record<string, string>
    setParams(next, { replace: true })
  }
  return { filter, set }
}
