import type { EditedCellRequest, OwnColumnsRequest, OwnViewRequest } from '#contract/board-requests.ts'
import type { BoardInfo, EditedCellView, SavedView } from '#contract/views/boards.ts'
import { checkColumn } from '#core/access/columns.ts'
import type { ColumnId, NodeId } from '#core/base/ids.ts'
import { nameColumn, type ViewState } from '#core/boards/view.ts'
import type { BoardColumn } from '#core/rules/column.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { EditedCellRow, OwnColumnsRow, OwnViewRow } from '../../store/tables.ts'
import { submit } from '../../store/writer.ts'
import { ok } from '#core/base/result.ts'
import { writeBookkeeping } from '../notifications/bookkeeping.ts'
import { type Asker, knowsPerson, maySee, nameOf, visiblePlace } from '../viewer/asker.ts'
import { viewSeen } from './looking.ts'

/** What is only one person's own: bookkeeping, without history. */

interface At {
  readonly board: NodeId
  readonly columns: readonly BoardColumn[]
}

/** So many views of their own somebody keeps on one board. */
const viewsAtMost = 100

export async function ownViewsOf(
  { writer }: Parts,
  asker: Asker,
  { board, columns }: At,
): Promise<SavedView[]> {
  const { workspace, person } = asker
  const rows = (await writer.tables.ownViews.findAll({
    where: { workspace, person, board },
    order: [['id', 'ASC']],
    raw: true,
  })) as unknown as OwnViewRow[]
  return rows.map(({ id, name, state }, order) => ({
    id,
    name,
    order,
    state: viewSeen(JSON.parse(state) as ViewState, columns),
  }))
}

export async function saveOwnView(
  parts: Parts,
  asker: Asker,
  { id, request }: { readonly id: string; readonly request: OwnViewRequest },
): Promise<SavedView> {
  const { workspace, person } = asker
  const board = ownBoard(asker, id)
  const own = { workspace, person, board }
  const row = {
    ...own,
    id: request.view ?? parts.newId(),
    name: request.name,
    state: JSON.stringify(request.state),
  }
  const table = 'ownViews'
  await writeBookkeeping(parts, asker, {
    topics: ['own-board'],
    conditions: [
      request.view === null
        ? { table, where: own, atMost: viewsAtMost - 1, orElse: 'many-views' }
        : { table, where: { ...own, id: request.view }, atLeast: 1, orElse: 'not-found' },
    ],
    rows: [{ kind: 'put', table, rows: [row], replaced: ['name', 'state'] }],
  })
  return { id: row.id, name: row.name, order: 0, state: request.state }
}

export async function deleteOwnView(
  parts: Parts,
  asker: Asker,
  { id, view }: { readonly id: string; readonly view: string },
): Promise<void> {
  const { workspace, person } = asker
  const where = { workspace, person, board: ownBoard(asker, id), id: view }
  await writeBookkeeping(parts, asker, {
    topics: ['own-board'],
    conditions: [{ table: 'ownViews', where, atLeast: 1, orElse: 'not-found' }],
    rows: [{ kind: 'delete', table: 'ownViews', where }],
  })
}

export async function ownColumnsOf(
  { writer }: Parts,
  { workspace, person }: Asker,
  { board, columns }: At,
): Promise<BoardInfo['ownColumns']> {
  const row = (await writer.tables.ownColumns.findOne({
    where: { workspace, person, board },
    raw: true,
  })) as unknown as OwnColumnsRow | null
  if (row === null) return null
  const seen = new Set([nameColumn, ...columns.map(each => each.id)])
  const { shown, hidden } = JSON.parse(row.columns) as NonNullable<BoardInfo['ownColumns']>
  return {
    shown: shown.filter(each => seen.has(each.column)),
    hidden: hidden.filter(each => seen.has(each)),
  }
}

export async function saveOwnColumns(
  parts: Parts,
  asker: Asker,
  { id, request }: { readonly id: string; readonly request: OwnColumnsRequest },
): Promise<void> {
  const { workspace, person } = asker
  const where = { workspace, person, board: ownBoard(asker, id) }
  const table = 'ownColumns'
  await writeBookkeeping(parts, asker, {
    topics: ['own-board'],
    rows: [
      request.columns === null
        ? { kind: 'delete', table, where }
        : {
            kind: 'put',
            table,
            rows: [{ ...where, columns: JSON.stringify(request.columns) }],
            replaced: ['columns'],
          },
    ],
  })
}

function ownBoard(asker: Asker, id: string): NodeId {
  const { node } = visiblePlace(asker, id).place
  if (node.kind !== 'board') throw problemOf('not-found')
  return node.id
}

/** For so long somebody is taken to write in a cell who said so: whoever goes on says it again. */
const editedFor = 60_000

export async function editCell(
  parts: Parts,
  asker: Asker,
  { id, request: { cell } }: { readonly id: string; readonly request: EditedCellRequest },
): Promise<void> {
  const { workspace, person, snapshot } = asker
  const board = ownBoard(asker, id)
  const where = { workspace, board, person }
  const table = 'cellsBeingEdited'
  const isThere =
    cell !== null &&
    maySee(asker, cell.row as NodeId) &&
    (cell.column === nameColumn ||
      checkColumn(snapshot, person, { at: cell.row as NodeId, column: cell.column as ColumnId }) === 'edit')
  if (cell !== null && !isThere) throw problemOf('not-found')
  const row =
    cell === null ? null : { ...where, node: cell.row, column: cell.column, until: parts.clock() + editedFor }
  const { revision } = snapshot.state
  await submit(parts.writer, () =>
    ok({
      value: undefined,
      rows: [
        row === null
          ? { kind: 'delete', table, where }
          : { kind: 'put', table, rows: [row], replaced: ['node', 'column', 'until'] },
      ],
      news: [
        {
          of: 'event' as const,
          workspace,
          revision,
          // Where it was before is nobody's to guess: all who see the board look.
          concerns: [{ topics: [`editing:${board}`], node: board }],
        },
      ],
    }),
  )
}

/** Where others write, in rows and columns that the asker sees. */
export async function editedCells(parts: Parts, asker: Asker, id: string): Promise<EditedCellView[]> {
  const { workspace, snapshot, person } = asker
  const board = ownBoard(asker, id)
  const rows = (await parts.writer.tables.cellsBeingEdited.findAll({
    where: { workspace, board },
    raw: true,
  })) as unknown as EditedCellRow[]
  return rows.flatMap(({ person: by, node, column, until }): EditedCellView[] => {
    const isSeen =
      by !== person &&
      until > parts.clock() &&
      maySee(asker, node) &&
      (column === nameColumn ||
        checkColumn(snapshot, person, { at: node, column: column as ColumnId }) !== 'none')
    return isSeen ? [{ row: node, column, person: knowsPerson(asker, by) ? nameOf(snapshot, by) : null }] : []
  })
}
