import { useEffect, useMemo } from 'react'
import { useSearchParams } from 'react-router'
import type { RowsView, RowView } from '#contract/views/boards.ts'
import { skipToken } from '@reduxjs/toolkit/query'
import { boardsApi, useBoardRowsQuery } from '../../api/boards.ts'
import { useAppDispatch } from '../../store/store.ts'
import { useSteady } from '../../ui/use-steady.ts'
import { rowsIn } from './use-view.ts'

/** So many rows are asked for at a time. */
export const pageLength = 100

export interface RowsAt {
  readonly rowAt: (position: number) => RowView | undefined
  /** By which a row is read. */
  readonly namesAt: (position: number) => Readonly<Record<string, string>>
}

export interface LoadedRows extends RowsAt {
  readonly answer: RowsView | undefined
  readonly names: Readonly<Record<string, string>>
  readonly isWaiting: boolean
  readonly areThere: (top: number, bottom: number) => boolean
  /** Rows from a position through another, also those that are nowhere near the screen; nothing where they cannot be read. */
  readonly load: (top: number, bottom: number) => Promise<RowsAt | undefined>
}

const nothing: Readonly<Record<string, string>> = {}

interface At {
  readonly slug: string
  readonly id: string
}

/** The positions of the first and the last row that are on the screen. */
export interface OnScreen {
  readonly first: number
  readonly last: number
}

/** So many rows before and behind those on the screen are there before one scrolls to them: one scrolls down more than up. */
const [aheadUp, aheadDown] = [30, 60]

/** The rows around those that are on the screen: one page or two, three where the screen shows more than a page. */
export function useRows(
  at: At,
  parameters: Readonly<Record<string, string>>,
  { first, last }: OnScreen,
): LoadedRows {
  const page = Math.floor(Math.max(0, first - aheadUp) / pageLength)
  const known = usePage({ at, parameters, page })
  const end = Math.min(last + aheadDown, (known?.count ?? 0) - 1)
  const next = usePage({ at, parameters, page: (page + 1) * pageLength <= end ? page + 1 : null })
  const third = usePage({ at, parameters, page: (page + 2) * pageLength <= end ? page + 2 : null })
  const loaded = useMemo(() => {
    const pages = [known, next, third].flatMap(each => each ?? [])
    const names = Object.assign({}, ...pages.map(each => each.names)) as Record<string, string>
    return { ...rowsOf(pages), answer: known, names, isWaiting: known === undefined }
  }, [known, next, third])
  const areThere = useSteady((top: number, bottom: number) => {
    for (let position = top; position <= bottom; position += 1)
      if (loaded.rowAt(position) === undefined) return false
    return true
  })
  const loadAll = useLoad({ at, parameters })
  const load = useSteady(async (top: number, bottom: number) =>
    areThere(top, bottom) ? loaded : loadAll(top, bottom),
  )
  return useMemo(() => ({ ...loaded, areThere, load }), [loaded, areThere, load])
}

function rowsOf(pages: readonly RowsView[]): RowsAt {
  const pageAt = (position: number) =>
    pages.find(each => position >= each.from && position < each.from + each.rows.length)
  return {
    rowAt: position => {
      const of = pageAt(position)
      return of?.rows[position - of.from]
    },
    namesAt: position => pageAt(position)?.names ?? nothing,
  }
}

const rowsAtOnce = 500

function useLoad({ at, parameters }: Omit<Page, 'page'>): LoadedRows['load'] {
  const dispatch = useAppDispatch()
  return useSteady(async (top: number, bottom: number) => {
    const pages: RowsView[] = []
    for (let from = top; from <= bottom; from += rowsAtOnce) {
      const count = String(Math.min(rowsAtOnce, bottom - from + 1))
      const asked = { ...at, ...rowsIn(parameters), from: String(from), count }
      const { initiate } = boardsApi.endpoints.boardRows
      const { data } = await dispatch(initiate(asked, { subscribe: false, forceRefetch: true }))
      if (data === undefined) return undefined
      pages.push(data)
    }
    return rowsOf(pages)
  })
}

interface Page {
  readonly at: At
  readonly parameters: Readonly<Record<string, string>>
  readonly page: number | null
}

/** What was there stays until its place is taken: a table never empties between two answers. */
function usePage({ page, ...of }: Page): RowsView | undefined {
  const { data, currentData } = useBoardRowsQuery(page === null ? skipToken : pageOf(of, page))
  return page === null ? undefined : (currentData ?? data)
}

const pageOf = ({ at, parameters }: Omit<Page, 'page'>, page: number) => ({
  ...at,
  ...rowsIn(parameters),
  from: String(page * pageLength),
  count: String(pageLength),
})

/** Asks for the first rows of a table at once, with what tells how they are shown. */
export function useFirstRows(at: At): void {
  const [search] = useSearchParams()
  const prefetch = boardsApi.usePrefetch('boardRows')
  const start = useSteady(() => {
    if (!search.has('as')) prefetch(pageOf({ at, parameters: Object.fromEntries(search) }, 0))
  })
  useEffect(start, [start, at.id])
}
