import { type ComponentType, type ReactNode, useCallback, useMemo, useRef, useState } from 'react'
import type { BoardInfo, ColumnView, EditedCellView, RowsView } from '#contract/views/boards.ts'
import type { NodeView } from '#contract/views/content.ts'
import { nameColumn, type ShownColumn } from '#core/boards/view.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { useBoardQuery, useEditedCellsQuery } from '../../api/boards.ts'
import { useHere } from '../../api/use-here.ts'
import { useAppSelector } from '../../store/store.ts'
import { useSteady } from '../../ui/use-steady.ts'
import {
  type BoardPanel,
  BoardContext,
  type ChosenRow,
  type OpenBoard,
  type Shown,
  useOpenBoard,
} from './board-context.ts'
import { Calendar } from './calendar/Calendar.tsx'
import { BoardSide } from './BoardSide.tsx'
import { BoardImport } from './import/BoardImport.tsx'
import { ReadingContext } from './cells/reading.ts'
import { ConditionsLine, type Found } from './ConditionsLine.tsx'
import { Lanes } from './lanes/Lanes.tsx'
import { type Linked, OutOfReach } from './OutOfReach.tsx'
import { Table } from './table/Table.tsx'
import { EditedCells } from './use-edited.ts'
import { useFirstRows } from './use-rows.ts'
import { useUsage } from './use-usage.ts'
import { useView } from './use-view.ts'
import { PendingCells, useWriting } from './use-writing.ts'
import { ViewsLine } from './ViewsLine.tsx'
import { type OfCells, withCells } from './writing.ts'

interface Props {
  readonly node: NodeView
  /** Where one is, above the board. */
  readonly header: ReactNode
  /** What stands at the right: who has access to the board. */
  readonly access: ComponentType<{ readonly node: NodeView }>
  /** The same of a row, beside its values. */
  readonly accessHere: ComponentType<{ readonly node: NodeView }>
}

/** A board: its views above, its rows below, and at the right who has access, or the row that is open. */
export function BoardScreen(props: Props) {
  const { slug } = useHere()
  const { data: info } = useBoardQuery({ slug, id: props.node.id })
  useFirstRows({ slug, id: props.node.id })
  return info === undefined ? <main aria-busy /> : <Opened {...props} info={info} />
}

function Opened({ node, header, access, accessHere, info }: Props & { readonly info: BoardInfo }) {
  const { slug } = useHere()
  const { found, onFound, namesNow, placeNames } = useFound(info.columns)
  const [panel, openPanel] = useState<BoardPanel>()
  const [linked, setLinked] = useState<Linked>()
  const chosen = useChosen(openPanel)
  const view = useView(info)
  const usage = useUsage({ ...info, namesNow })
  const [writing, pending] = useWriting({ slug, id: node.id })
  const edited = useEdited({ slug, id: node.id })
  const shown = useMemo(
    () => shownColumns(info.columns, view.view.columns),
    [info.columns, view.view.columns],
  )
  const board = useMemo(
    (): OpenBoard => ({
      slug,
      node,
      info,
      view,
      shown,
      usage,
      writing,
      ...powersAt(node),
      placeNames,
      ...chosen,
      onLinked: setLinked,
      openPanel,
    }),
    [slug, node, info, view, shown, usage, writing, placeNames, chosen],
  )
  const reading = useMemo(() => ({ slug, timeZone: info.timeZone, usage }), [slug, info.timeZone, usage])
  const isImporting = panel?.of === 'import'
  return (
    <BoardContext value={board}>
      <ReadingContext value={reading}>
        <EditedCells value={edited}>
          <PendingCells value={pending}>
            <Laid isImporting={isImporting} isOpen={panel !== undefined || view.row !== null}>
              <main className="flex min-w-0 flex-col px-6 pt-3 max-md:px-3 max-md:pb-4 md:min-h-0">
                {header}
                {isImporting ? (
                  <BoardImport onClose={() => openPanel(undefined)} />
                ) : (
                  <>
                    <ViewsLine isPartial={found?.isPartial === true} />
                    <ConditionsLine found={found} />
                    <OutOfReach linked={linked} onClose={() => setLinked(undefined)} />
                    <Drawn onFound={onFound} />
                  </>
                )}
              </main>
              {!isImporting && <BoardSide panel={panel} access={access} accessHere={accessHere} />}
            </Laid>
          </PendingCells>
        </EditedCells>
      </ReadingContext>
    </BoardContext>
  )
}

const powersAt = ({ actions }: NodeView) => ({
  mayArrange: has(actions as ActionSet, 'arrange'),
  mayShare: has(actions as ActionSet, 'share'),
  mayAdd: has(actions as ActionSet, 'add'),
})

/** The rows that are chosen in the table, for what is done with them elsewhere. */
function useChosen(openPanel: OpenBoard['openPanel']): Pick<OpenBoard, 'chosenRef' | 'binChosen'> {
  const chosenRef = useRef(noRows)
  const binChosen = useSteady(async () => {
    const rows = await chosenRef.current()
    if (rows.length > 0) openPanel({ of: 'bin rows', rows })
  })
  return useMemo(() => ({ chosenRef, binChosen: () => void binChosen() }), [binChosen])
}

const noRows = (): Promise<readonly ChosenRow[]> => Promise.resolve([])

/** What is told of the rows above them, and the names that they were read by: not drawn anew for each few rows that come. */
function useFound(columns: readonly ColumnView[]) {
  const [found, setFound] = useState<Found>()
  const names = useRef<Readonly<Record<string, string>>>({})
  const places = useRef(new Set<string>())
  const onFound = useCallback(
    (rows: RowsView | undefined) => {
      if (rows === undefined) return
      names.current = { ...names.current, ...rows.names }
      for (const { id, kind } of columns)
        if (kind === 'place')
          for (const { cells } of rows.rows)
            for (const place of (cells[id] ?? []) as string[]) places.current.add(place)
      const { count, all, isPartial } = rows
      setFound(before =>
        before?.count === count && before.all === all && before.isPartial === isPartial
          ? before
          : { count, all, isPartial },
      )
    },
    [columns],
  )
  const namesNow = useCallback(() => names.current, [])
  const placeNames = useCallback(
    () =>
      [...places.current].flatMap(id => {
        const name = names.current[id]
        return name === undefined ? [] : [{ id, name }]
      }),
    [],
  )
  return { found, onFound, namesNow, placeNames }
}

function Drawn({ onFound }: { readonly onFound: (rows: RowsView | undefined) => void }) {
  const Layout = { table: Table, lanes: Lanes, calendar: Calendar }[useOpenBoard().view.view.layout]
  return <Layout onFound={onFound} />
}

interface LaidProps {
  readonly isImporting: boolean
  readonly isOpen: boolean
  readonly children: ReactNode
}

/** On a phone a row stands in the place of the board, and who has access below it. */
function Laid({ isImporting, isOpen, children }: LaidProps) {
  const isFolded = useAppSelector(state => state.view.boardAccessFolded)
  const columns = isFolded ? 'md:grid-cols-[minmax(0,1fr)_2.75rem]' : 'md:grid-cols-[minmax(0,1fr)_22rem]'
  const laid = isImporting ? 'grid' : isOpen ? 'beside [--panel:22rem]' : `grid ${columns}`
  return <div className={`min-h-0 ${laid}`}>{children}</div>
}

/** Seldom many: they are found by their cell. */
function useEdited(at: { readonly slug: string; readonly id: string }): OfCells<EditedCellView> {
  const { data } = useEditedCellsQuery(at)
  return useMemo(() => withCells(new Map(), data?.map(each => [each.row, each.column, each]) ?? []), [data])
}

const widths: Partial<Record<ColumnView['kind'], number>> = {
  'serial number': 76,
  number: 96,
  checkbox: 92,
  date: 116,
  period: 190,
  state: 150,
  person: 168,
  'long text': 260,
  created: 110,
  updated: 110,
}
const nameWidth = 250
const usualWidth = 140

/** The name always comes first; columns that a view does not name are not shown in it. */
function shownColumns(columns: readonly ColumnView[], chosen: readonly ShownColumn[] | null): Shown[] {
  const widthOf = (id: string) => chosen?.find(each => each.column === id)?.width ?? null
  const name: Shown = {
    id: nameColumn,
    name: 'Name',
    column: undefined,
    width: widthOf(nameColumn) ?? nameWidth,
  }
  const listed =
    chosen === null ? columns : chosen.flatMap(({ column }) => columns.find(each => each.id === column) ?? [])
  return [
    name,
    ...listed.map(column => ({
      id: column.id,
      name: column.name,
      column,
      width: widthOf(column.id) ?? widths[column.kind] ?? usualWidth,
    })),
  ]
}
