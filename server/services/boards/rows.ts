import type { RowsQuery, ViewQuery } from '#contract/board-requests.ts'
import type { BoardInfo, RowDetail, RowsView, RowView, TotalsView } from '#contract/views/boards.ts'
import { writesRow } from '#core/access/columns.ts'
import { isOwnPlace } from '#core/access/by-id.ts'
import { check } from '#core/access/evaluate.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import type { ShownRow } from '#core/boards/shown-rows.ts'
import { viewFrom, viewParameterNames, type ViewState } from '#core/boards/view.ts'
import { has } from '#core/levels/action.ts'
import { askBoard } from '../../boards/asking.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, knowsPerson, maySee, nameOf, visiblePlace } from '../viewer/asker.ts'
import { columnsView } from './column-views.ts'
import { commentsCounted } from './comments-counted.ts'
import { boardOf, lookAt, type LookedAt, sectionsOf, todayOf, viewSeen, visibleColumnsAt } from './looking.ts'
import { ownColumnsOf, ownViewsOf } from './own.ts'
import { knownName } from './usage.ts'

/** A board without its rows. */
export async function boardInfo(parts: Parts, asker: Asker, id: string): Promise<BoardInfo> {
  const { node } = boardOf(asker, id)
  const columns = visibleColumnsAt(asker, id)
  const at = { board: node.id, columns }
  return {
    columns: columnsView(asker, id),
    sections: sectionViews(asker, node.id),
    views: viewsOf(asker, node.id).map(each => ({
      ...each,
      state: viewSeen(each.state, columns),
    })),
    ownViews: await ownViewsOf(parts, asker, at),
    ownColumns: await ownColumnsOf(parts, asker, at),
    ...todayOf(parts, asker),
  }
}

const sectionViews = (asker: Asker, board: NodeId) =>
  sectionsOf(asker.snapshot.state, board).map(({ id, name, order }) => ({ id, name, order }))

const viewsOf = ({ snapshot }: Asker, board: NodeId) =>
  rowsBy(snapshot.state.boardViews, 'board', board)
    .map(({ id, name, order, state }) => ({ id, name, order, state }))
    .sort((a, b) => a.order - b.order || compareWords(a.name, b.name) || (a.id < b.id ? -1 : 1))

/** So many rows are told at a time. */
const rowsAtOnce = 500

/** What an address says of a view. */
export function viewIn(query: ViewQuery): ViewState {
  const view = viewFrom(name => query[name as keyof ViewQuery])
  if (view !== undefined) return view
  const at = viewParameterNames.find(name => query[name] !== undefined) ?? 'where'
  throw problemOf('bad-input', { faults: [{ at, message: 'This is not how a view is written.' }] })
}

export async function boardRows(
  parts: Parts,
  asker: Asker,
  { id, query }: { readonly id: string; readonly query: RowsQuery },
): Promise<RowsView> {
  const { from: begins, count, ...view } = query
  seenBoard(asker, id)
  const looked = await lookAt(parts, asker, { id, view: viewIn(view) })
  const from = Number(begins ?? 0)
  const { rows, ...found } = await askBoard<'rows'>(parts.boards.thread, looked.board, {
    kind: 'rows',
    looking: looked.looking,
    from,
    count: Math.min(rowsAtOnce, Number(count ?? rowsAtOnce)),
  })
  return {
    ...found,
    from,
    rows: await rowViews(parts, asker, rows),
    names: namesIn(asker, looked, { rows, keys: groupedByNames(looked, viewIn(view)) ? found.groups : [] }),
  }
}

/** Rows are told as those of a board that is seen; who sees one row alone asks for that. */
export function seenBoard(asker: Asker, id: string): NodeId {
  const { node } = visiblePlace(asker, id).place
  if (node.kind !== 'board') throw problemOf('not-found')
  return node.id
}

const groupedByNames = ({ columns }: LookedAt, { group }: ViewState): boolean =>
  columns.some(({ id, kind }) => id === group && (kind === 'person' || kind === 'place'))

async function rowViews(parts: Parts, asker: Asker, rows: readonly ShownRow[]): Promise<RowView[]> {
  const { snapshot, subject } = asker
  const counts = await commentsCounted(
    parts,
    asker.workspace,
    rows.map(each => each.id as NodeId),
  )
  return rows.map(row => {
    const id = row.id as NodeId
    const node = rowOf(snapshot.state.nodes, id)
    const held = check(snapshot, asker.person, id)
    return {
      ...row,
      mayEdit: node !== undefined && writesRow(subject, held, node.maker),
      isOwnAccess: isOwnPlace(snapshot.state, id),
      comments: counts.get(id) ?? 0,
    }
  })
}

interface Named {
  readonly rows: readonly ShownRow[]
  readonly keys?: readonly { readonly key: string }[]
}

const naming: ReadonlySet<string> = new Set(['person', 'place', 'file'])

/** The names that cells, and the keys of groups, are read by. */
export function namesIn(
  asker: Asker,
  { columns }: Pick<LookedAt, 'columns'>,
  { rows, keys = [] }: Named,
): Record<string, string> {
  const ids = new Set<string>(keys.flatMap(({ key }) => key.split(' ')))
  for (const { id, kind } of columns)
    if (naming.has(kind))
      for (const { cells } of rows) for (const named of (cells[id] ?? []) as string[]) ids.add(named)
  if (columns.some(({ kind }) => kind === 'created'))
    for (const { id } of rows) {
      const node = rowOf(asker.snapshot.state.nodes, id as NodeId)
      if (node !== undefined) ids.add(node.maker)
    }
  return Object.fromEntries(
    [...ids].flatMap(id => {
      const name = knownName(asker, id)
      return name === undefined ? [] : [[id, name]]
    }),
  )
}

export async function boardTotals(
  parts: Parts,
  asker: Asker,
  { id, query }: { readonly id: string; readonly query: ViewQuery },
): Promise<TotalsView> {
  seenBoard(asker, id)
  const looked = await lookAt(parts, asker, { id, view: viewIn(query) })
  const totals = await askBoard<'totals'>(parts.boards.thread, looked.board, {
    kind: 'totals',
    looking: looked.looking,
  })
  return { totals }
}

/** One row, whether its board is seen or not. */
export async function rowDetail(parts: Parts, asker: Asker, id: string): Promise<RowDetail> {
  const { node } = visiblePlace(asker, id).place
  if (node.kind !== 'row') throw problemOf('not-found')
  const looked = await lookAt(parts, asker, { id })
  const rows = await askBoard<'rows of'>(parts.boards.thread, looked.board, {
    kind: 'rows of',
    looking: looked.looking,
    ids: [node.id],
  })
  const [row] = await rowViews(parts, asker, rows)
  if (row === undefined) throw problemOf('not-found')
  const seesBoard = maySee(asker, looked.board)
  return {
    board: { id: seesBoard ? looked.board : '', name: seesBoard ? looked.place.node.name : '' },
    seesBoard,
    columns: columnsView(asker, id),
    sections: seesBoard ? sectionViews(asker, looked.board) : [],
    row: seesBoard ? row : { ...row, section: null, order: 0 },
    serial: looked.columns.some(each => each.kind === 'serial number') ? node.serial : null,
    ...todayOf(parts, asker),
    madeAt: node.madeAt,
    madeBy: knowsPerson(asker, node.maker) ? nameOf(asker.snapshot, node.maker) : null,
    names: namesIn(asker, looked, { rows }),
  }
}

export const mayArrange = (asker: Asker, board: NodeId): boolean =>
  has(check(asker.snapshot, asker.person, board), 'arrange')
