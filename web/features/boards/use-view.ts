import { useCallback, useMemo } from 'react'
import { useSearchParams } from 'react-router'
import type { BoardInfo } from '#contract/views/boards.ts'
import { plainView, viewFrom, viewParameterNames, viewParameters, type ViewState } from '#core/boards/view.ts'
import { useSteady } from '../../ui/use-steady.ts'

/** How the open board is looked at. It stands in the address, so that a link shows the same. */
export interface OpenView {
  readonly view: ViewState
  readonly parameters: Readonly<Record<string, string>>
  /** The saved view that was opened last. */
  readonly saved: string | null
  /** Whether the address says which columns are shown. */
  readonly isOfColumns: boolean
  readonly change: (part: Partial<ViewState>) => void
  readonly open: (state: ViewState, saved: string | null) => void
  /** The row that stands open beside the board. */
  readonly row: string | null
  readonly openRow: (row: string | null) => void
}

export function useView(info: BoardInfo | undefined): OpenView {
  const [search, setSearch] = useSearchParams()
  const address = search.toString()
  const view = useMemo(() => {
    const parameters = new URLSearchParams(address)
    const read = viewFrom(name => parameters.get(name)) ?? plainView
    // Where an address says nothing of columns they stand as their reader has them.
    return read.columns === null ? { ...read, columns: ownColumns(info) } : read
  }, [address, info])
  const saved = search.get('view')
  const row = search.get('row')
  const go = useCallback(
    (parameters: Readonly<Record<string, string>>, others: Readonly<Record<string, string | null>>) => {
      setSearch(
        before => {
          const next = new URLSearchParams(before)
          for (const name of viewParameterNames) next.delete(name)
          for (const [name, value] of Object.entries({ ...parameters, ...others }))
            if (value === null) next.delete(name)
            else next.set(name, value)
          return next
        },
        { replace: true },
      )
    },
    [setSearch],
  )
  const parameters = useMemo(() => viewParameters(view), [view])
  const isOfColumns = search.has('columns')
  const change = useSteady((part: Partial<ViewState>) => {
    const next = viewParameters({ ...view, ...part })
    // One's own order and widths stay out of the address until one changes them in a view.
    if (!('columns' in part) && !isOfColumns) delete next['columns']
    go(next, {})
  })
  const open = useSteady((state: ViewState, id: string | null) => go(viewParameters(state), { view: id }))
  const openRow = useSteady((id: string | null) =>
    setSearch(before => {
      const next = new URLSearchParams(before)
      if (id === null) next.delete('row')
      else next.set('row', id)
      return next
    }),
  )
  return useMemo(
    () => ({ view, parameters, saved, isOfColumns, row, change, open, openRow }),
    [view, parameters, saved, isOfColumns, row, change, open, openRow],
  )
}

/** A column that was made since is shown behind the others. */
function ownColumns(info: BoardInfo | undefined): ViewState['columns'] {
  if (info?.ownColumns == null) return null
  const { shown, hidden } = info.ownColumns
  const known = new Set([...hidden, ...shown.map(each => each.column)])
  return [
    ...shown,
    ...info.columns.filter(({ id }) => !known.has(id)).map(({ id }) => ({ column: id, width: null })),
  ]
}

type Parameters = Readonly<Record<string, string>>

/** Which rows a view finds, and in what order, without how it draws them. */
export const conditionsIn = (parameters: Parameters): Record<string, string> =>
  only(parameters, ['where', 'sort'])

/** The same, in its groups. */
export const rowsIn = (parameters: Parameters): Record<string, string> =>
  only(parameters, ['where', 'sort', 'group'])

const only = (parameters: Parameters, names: readonly string[]): Record<string, string> =>
  Object.fromEntries(Object.entries(parameters).filter(([name]) => names.includes(name)))
