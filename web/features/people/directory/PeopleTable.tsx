import { type KeyboardEvent, type MouseEvent, useEffect, useRef, useState } from 'react'
import { useVirtualizer } from '@tanstack/react-virtual'
import type { PersonView } from '#contract/views/people.ts'
import type { PeopleQuery } from '#contract/requests.ts'
import { usePeopleQuery } from '../../../api/people.ts'
import { useHere } from '../../../api/use-here.ts'
import { useAppSelector } from '../../../store/store.ts'
import { columnsFor, type PeopleColumn } from './columns.tsx'
import type { Selection } from './selection.ts'
import { useFilter } from './use-filter.ts'

interface Props {
  readonly chosen: string | undefined
  /** A panel stands beside it. */
  readonly isNarrow: boolean
  readonly onChoose: (id: string) => void
  readonly selection: Selection
}

const rowHeight = 33
/** Of the boxes to select by, in rem. */
const boxWidth = 2.25
const pageSize = 100

/**
 * The list. Only rows in sight are drawn, and only their pages asked for, so that twenty thousand people scroll
 * like twenty. Arrows go from row to row, Space selects, with Shift a range, Enter opens.
 */
export function PeopleTable({ chosen, isNarrow, onChoose, selection }: Props) {
  const { slug } = useHere()
  const { filter } = useFilter()
  const { data } = usePeopleQuery({ slug, ...filter })
  const total = data?.total ?? 0
  const scroller = useRef<HTMLDivElement>(null)
  const [focused, setFocused] = useState(0)
  // The library keeps its own state; nothing here is memoised on it.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 8,
  })
  const items = rows.getVirtualItems()
  const added = useAppSelector(state => state.view.peopleColumns)
  const columns = columnsFor(filter, { isNarrow, added })
  const focusRow = (index: number): boolean => {
    const row = scroller.current?.querySelector<HTMLElement>(`[data-row="${index}"]`)
    row?.focus({ preventScroll: true })
    return row != null
  }
  const go = (index: number) => {
    const next = Math.max(0, Math.min(index, total - 1))
    setFocused(next)
    rows.scrollToIndex(next)
    // A row that is drawn takes the focus at once, so that keys that follow fast find it.
    if (!focusRow(next)) requestAnimationFrame(() => focusRow(next))
  }
  const before = items[0]?.start ?? 0
  const after = rows.getTotalSize() - (items.at(-1)?.end ?? 0)
  if (data !== undefined && total === 0)
    return <p className="py-6">Nobody matches. Remove a filter or search for something else.</p>
  return (
    <div ref={scroller} className="min-h-0 overflow-auto" data-people-list>
      <table className="sheet table-fixed" style={{ minWidth: widthOf(columns) }} aria-rowcount={total + 1}>
        <Head columns={columns} selection={selection} total={total} />
        <tbody>
          <Spacer height={before} columns={columns.length + 1} />
          {items.map(({ index, key }) => (
            <Row
              key={key}
              index={index}
              query={filter}
              columns={columns}
              chosen={chosen}
              isFocusable={index === focused}
              selection={selection}
              onChoose={id => {
                setFocused(index)
                onChoose(id)
              }}
              onGo={go}
            />
          ))}
          <Spacer height={after} columns={columns.length + 1} />
        </tbody>
      </table>
    </div>
  )
}

const Spacer = ({ height, columns }: { readonly height: number; readonly columns: number }) =>
  height > 0 && (
    <tr aria-hidden>
      <td colSpan={columns} style={{ height, padding: 0, border: 0 }} />
    </tr>
  )

const widthOf = (columns: readonly PeopleColumn[]): string =>
  `${columns.reduce((sum, each) => sum + each.width, boxWidth)}rem`

interface HeadProps {
  readonly columns: readonly PeopleColumn[]
  readonly selection: Selection
  readonly total: number
}

function Head({ columns, selection, total }: HeadProps) {
  const { filter, set } = useFilter()
  const { sort = 'name', down } = filter
  const isAll = total > 0 && selection.ids.size >= total
  return (
    <thead className="sticky top-0 z-10 bg-base-100">
      <tr>
        <th scope="col" className="w-9">
          <input
            type="checkbox"
            className="checkbox checkbox-xs border-base-content/60 align-middle"
            aria-label="Select everybody shown"
            checked={isAll}
            onChange={() => (isAll ? selection.clear() : selection.all())}
          />
        </th>
        {columns.map(column => {
          const isSorted = column.sort !== undefined && column.sort === sort
          const order = down === undefined ? 'ascending' : 'descending'
          return (
            <th
              key={column.head}
              scope="col"
              style={{ width: `${column.width}rem` }}
              aria-sort={isSorted ? order : undefined}
            >
              {column.sort === undefined ? (
                column.head
              ) : (
                <button
                  type="button"
                  className="cursor-pointer font-semibold hover:underline"
                  onClick={() => set({ sort: column.sort, down: isSorted && down === undefined ? '1' : '' })}
                >
                  {column.head}
                  {isSorted && <span aria-hidden>{down === undefined ? ' ↑' : ' ↓'}</span>}
                </button>
              )}
            </th>
          )
        })}
      </tr>
    </thead>
  )
}

interface RowProps {
  readonly index: number
  readonly query: PeopleQuery
  readonly columns: readonly PeopleColumn[]
  readonly chosen: string | undefined
  readonly isFocusable: boolean
  readonly selection: Selection
  readonly onChoose: (id: string) => void
  readonly onGo: (index: number) => void
}

/** Rows of one page share its answer. */
function usePersonAt(index: number, query: PeopleQuery): PersonView | undefined {
  const { slug } = useHere()
  const from = Math.floor(index / pageSize) * pageSize
  const { data } = usePeopleQuery({ slug, ...query, ...(from === 0 ? {} : { from: String(from) }) })
  return data?.items[index - from]
}

function Row({ index, query, columns, chosen, isFocusable, selection, onChoose, onGo }: RowProps) {
  const person = usePersonAt(index, query)
  const { workspace } = useHere()
  const row = useRef<HTMLTableRowElement>(null)
  const isChosen = person !== undefined && person.id === chosen
  useEffect(() => {
    if (isChosen) row.current?.scrollIntoView({ block: 'nearest' })
  }, [isChosen])
  if (person === undefined)
    return (
      <tr style={{ height: rowHeight }}>
        <td colSpan={columns.length + 1} className="quiet">
          …
        </td>
      </tr>
    )
  const isSelected = selection.ids.has(person.id)
  const onKeyDown = (event: KeyboardEvent) => {
    const steps: Record<string, number> = { ArrowDown: 1, ArrowUp: -1, PageDown: 15, PageUp: -15 }
    const step = steps[event.key]
    if (step !== undefined) onGo(index + step)
    else if (event.key === ' ' && event.target === row.current) selection.toggle(person.id, event.shiftKey)
    else if (event.key === 'Enter' && event.target === row.current) onChoose(person.id)
    else return
    event.preventDefault()
  }
  const onTick = (event: MouseEvent) => {
    event.stopPropagation()
    selection.toggle(person.id, event.shiftKey)
  }
  return (
    <tr
      ref={row}
      data-row={index}
      tabIndex={isFocusable ? 0 : -1}
      aria-rowindex={index + 2}
      aria-selected={isChosen}
      className="cursor-pointer"
      style={{ height: rowHeight }}
      onClick={() => onChoose(person.id)}
      onKeyDown={onKeyDown}
    >
      <td onClick={onTick}>
        <input
          type="checkbox"
          className="checkbox checkbox-xs border-base-content/60 align-middle"
          aria-label={`Select ${person.name}`}
          tabIndex={-1}
          checked={isSelected}
          readOnly
        />
      </td>
      {columns.map(({ head, cell }) => (
        <td key={head} className="truncate">
          {cell(person, workspace.timeZone)}
        </td>
      ))}
    </tr>
  )
}
