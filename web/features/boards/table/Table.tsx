import { useVirtualizer } from '@tanstack/react-virtual'
import { type MouseEvent, useContext, useEffect, useMemo, useRef, useState } from 'react'
import type { RowsView } from '#contract/views/boards.ts'
import { sectionColumn } from '#core/boards/view.ts'
import { useSteady } from '../../../ui/use-steady.ts'
import { type ChosenRow, useOpenBoard } from '../board-context.ts'
import { EditedCells } from '../use-edited.ts'
import { type OnScreen, useRows } from '../use-rows.ts'
import { PendingCells } from '../use-writing.ts'
import { Foot } from './Foot.tsx'
import { GroupLine } from './GroupLine.tsx'
import { Header } from './Header.tsx'
import { type Line, lineHeight, type Lines, linesOf } from './layout.ts'
import { NewRowLine } from './NewRowLine.tsx'
import { type RowActs, RowLine, spotOf } from './RowLine.tsx'
import { isOne, type Spot } from './selection.ts'
import { TableKeys } from './TableKeys.tsx'
import { type RowOrder, useRowOrder } from './use-row-order.ts'
import { type ShownRange, useShownRange } from './use-shown-range.ts'
import { type TableState, useTable } from './use-table.ts'

/** All lines are of one height; head and foot lie over what is scrolled under them. */
const drawn = {
  estimateSize: () => lineHeight,
  overscan: 12,
  scrollPaddingStart: lineHeight + 6,
  scrollPaddingEnd: lineHeight + 6,
}

/** The board as a table: only the lines on the screen are drawn, and only the rows around them are asked for. */
export function Table({ onFound }: { readonly onFound: (found: RowsView | undefined) => void }) {
  const { slug, node, view, shown } = useOpenBoard()
  const [onScreen, setOnScreen] = useState<OnScreen>({ first: 0, last: 0 })
  const [folded, turn] = useFolded()
  const rows = useRows({ slug, id: node.id }, view.parameters, onScreen)
  const { answer } = rows
  useEffect(() => onFound(answer), [answer, onFound])
  const lines = useLines(answer, folded)
  const scroll = useRef<HTMLDivElement>(null)
  const body = useRef<HTMLDivElement>(null)
  // The library keeps its own state; nothing here is memoised on it.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: lines.count,
    getScrollElement: () => scroll.current,
    ...drawn,
    // What is on the screen is asked for, whatever is drawn around it.
    onChange: ({ range }) => {
      const next = positionsIn(lines, range?.startIndex ?? 0, range?.endIndex ?? 0)
      setOnScreen(before => (before.first === next.first && before.last === next.last ? before : next))
    },
  })
  const scrollTo = useSteady(({ row, column }: Spot) => {
    const line = lines.lineOf(row)
    if (line !== undefined) virtual.scrollToIndex(line)
    scrollToColumn(scroll.current, column)
  })
  const table = useTable({ rows, count: answer?.count ?? 0, scrollTo })
  useChosenRows(table)
  const order = useRowOrder({ lines, table, scroll, body })
  const range = useShownRange(scroll, shown)
  const acts = useRowActs(table, order)
  const width = shown.reduce((sum, each) => sum + each.width, 0)
  return (
    <TableKeys table={table} order={order} scroll={scroll} width={width} lines={lines.count}>
      <Header here={table.selection.at.column} scroll={scroll} />
      <div
        ref={body}
        role="rowgroup"
        className="relative"
        style={{ height: virtual.getTotalSize() }}
        {...pointingAt(table)}
      >
        {virtual.getVirtualItems().map(({ index, start }) => (
          <LineShown
            key={index}
            line={lines.at(index)}
            top={start}
            table={table}
            range={range}
            acts={acts}
            mayPut={order.mayPut}
            folded={folded}
            onTurn={turn}
          />
        ))}
        <Target order={order} />
      </div>
      <Foot count={answer?.count ?? 0} />
    </TableKeys>
  )
}

/** Where rows that are dragged would go. */
const Target = ({ order: { target } }: { readonly order: RowOrder }) =>
  target !== undefined && (
    <div
      aria-hidden
      className="absolute right-0 left-0 z-10 h-0.5 -translate-y-px bg-primary"
      style={{ top: target.line * lineHeight }}
    />
  )

/** The first column lies over what is scrolled under it. */
function scrollToColumn(grid: HTMLElement | null, column: number): void {
  const heads = grid?.querySelectorAll<HTMLElement>('[role=columnheader]')
  const [first, head] = [heads?.[0], heads?.[column]]
  if (grid === null || first === undefined || head === undefined || column === 0) return
  const { offsetLeft: left, offsetWidth: width } = head
  if (left - first.offsetWidth < grid.scrollLeft) grid.scrollLeft = left - first.offsetWidth
  else if (left + width > grid.scrollLeft + grid.clientWidth)
    grid.scrollLeft = left + width - grid.clientWidth
}

/** Groups whose rows are hidden, by their keys; and a way to turn one. */
function useFolded(): readonly [ReadonlySet<string>, (key: string) => void] {
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set())
  const turn = (key: string) =>
    setFolded(before => {
      const next = new Set(before)
      if (!next.delete(key)) next.add(key)
      return next
    })
  return [folded, turn]
}

/** What is done with whole rows finds them here, wherever it is pressed. */
function useChosenRows({ rowsIn, block }: TableState): void {
  const { chosenRef } = useOpenBoard()
  useEffect(() => {
    chosenRef.current = async () => {
      const rows = await rowsIn(block)
      const found: ChosenRow[] = []
      for (let position = block.top; position <= block.bottom; position += 1) {
        const row = rows?.rowAt(position)
        if (row !== undefined) found.push({ id: row.id, name: row.name })
      }
      return found
    }
  })
}

/** What the pointer does to cells, told once for all of them; within the one that is written in it does what it does in text. */
function pointingAt({ editing, selectFrom, selectTo, edit }: TableState) {
  const spot = ({ target }: MouseEvent): Spot | undefined => {
    const at = spotOf(target)
    return at === undefined || (editing?.row === at.row && editing.column === at.column) ? undefined : at
  }
  return {
    onMouseDown: (event: MouseEvent) => {
      const at = spot(event)
      if (at !== undefined && event.button === 0) selectFrom(at, event.shiftKey)
    },
    onMouseOver: (event: MouseEvent) => {
      const at = spot(event)
      if (at !== undefined) selectTo(at)
    },
    onDoubleClick: (event: MouseEvent) => {
      const at = spot(event)
      if (at !== undefined) edit(at)
    },
  }
}

/** The same functions for as long as the table is open: rows need not be drawn anew for them. */
function useRowActs(table: TableState, order: RowOrder): RowActs {
  const { view } = useOpenBoard()
  const finish = useSteady(table.finish)
  const cancel = useSteady(table.cancel)
  const openRow = useSteady(view.openRow)
  const drag = useSteady(order.drag)
  return useMemo(() => ({ finish, cancel, openRow, drag }), [finish, cancel, openRow, drag])
}

interface LineProps {
  readonly line: Line | undefined
  readonly top: number
  readonly table: TableState
  readonly range: ShownRange
  readonly acts: RowActs
  readonly mayPut: boolean
  readonly folded: ReadonlySet<string>
  readonly onTurn: (key: string) => void
}

function LineShown({ line, top, table, folded, onTurn, ...of }: LineProps) {
  if (line === undefined) return null
  if (line.of === 'row') return <RowAt position={line.position} top={top} table={table} {...of} />
  const { group } = line
  const at = { top, height: lineHeight }
  if (line.of === 'new row') return <NewRowLine key={group.key} group={group} at={at} />
  return (
    <GroupLine
      group={group}
      names={table.rows.names}
      isFolded={folded.has(group.key)}
      onTurn={() => onTurn(group.key)}
      at={at}
    />
  )
}

interface RowAtProps extends Pick<LineProps, 'top' | 'table' | 'range' | 'acts' | 'mayPut'> {
  readonly position: number
}

/** What of the table is a row's own. */
function RowAt({ position, table, ...of }: RowAtProps) {
  const { shown, view } = useOpenBoard()
  const [pending, edited] = [useContext(PendingCells), useContext(EditedCells)]
  const { rows, selection, block, editing } = table
  const row = rows.rowAt(position)
  const isInBlock = position >= block.top && position <= block.bottom
  return (
    <RowLine
      {...of}
      position={position}
      row={row}
      names={rows.namesAt(position)}
      height={lineHeight}
      shown={shown}
      isOpen={row !== undefined && row.id === view.row}
      here={selection.at.row === position ? selection.at.column : undefined}
      blockFrom={isInBlock ? block.left : undefined}
      blockThrough={isInBlock ? block.right : undefined}
      isBlockOfOne={isOne(block)}
      editing={editing?.row === position ? editing : undefined}
      pending={row === undefined ? undefined : pending.get(row.id)}
      edited={row === undefined ? undefined : edited.get(row.id)}
    />
  )
}

function useLines(answer: RowsView | undefined, folded: ReadonlySet<string>): Lines {
  const { view, info, mayAdd } = useOpenBoard()
  const { group } = view.view
  const hasSections = info.sections.length > 0
  return useMemo(() => {
    const found = answer?.groups ?? []
    const isBySection = group === sectionColumn
    const hasHeads = group !== null && (!isBySection || hasSections)
    // A section in which nothing stands is one still; rows that stand in none come first.
    const groups =
      isBySection && hasSections && isEverything(answer)
        ? [
            ...found.filter(each => each.key === ''),
            ...info.sections.map(({ id }) => found.find(each => each.key === id) ?? { key: id, count: 0 }),
          ]
        : found.length === 0
          ? [{ key: '', count: 0 }]
          : found
    return linesOf(groups, { hasHeads, folded, takesRows: mayAdd && (isBySection || group === null) })
  }, [answer, folded, group, hasSections, info.sections, mayAdd])
}

const isEverything = (answer: RowsView | undefined): boolean => answer?.count === answer?.all

/** Of the rows in some lines; where there are none, of the next one. In tens: not each line that is scrolled asks anew. */
function positionsIn(lines: Lines, top: number, bottom: number): OnScreen {
  const positions: number[] = []
  for (let at = top; at < lines.count && (at <= bottom || positions.length === 0); at += 1) {
    const line = lines.at(at)
    if (line?.of === 'row') positions.push(line.position)
  }
  const [first = 0] = positions
  const last = positions.at(-1) ?? first
  return { first: Math.floor(first / 10) * 10, last: Math.ceil(last / 10) * 10 }
}
