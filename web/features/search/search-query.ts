import type { SearchQuery } from '#contract/requests.ts'

/** What stands in the address of a search. */
export interface Search {
  readonly find?: string
  readonly in?: string
  readonly by?: string
  readonly kind?: string
  /** Within so many days. */
  readonly days?: string
}

export const kinds = ['folder', 'board', 'row', 'page', 'file'] as const
type Kind = (typeof kinds)[number]

const day = 86_400_000

/** What the server is asked: whatever in an address is no condition is left out. */
export function queryOf(
  { find = '', in: place, by, kind, days }: Search,
  now: number,
): Omit<SearchQuery, 'from'> {
  const known = kinds.find((each): each is Kind => each === kind)
  const span = Number(days)
  return {
    ...(find.trim() === '' ? {} : { find: find.trim() }),
    ...(isId(place) ? { in: place as never } : {}),
    ...(isId(by) ? { by: by as never } : {}),
    ...(known === undefined ? {} : { kind: known }),
    ...(span > 0 ? { since: String(now - span * day) } : {}),
  }
}

const isId = (text: string | undefined): boolean => /^[a-z0-9-]{1,40}$/.test(text ?? '')
