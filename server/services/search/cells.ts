import { cellValue } from '#core/boards/data.ts'
import { createHash } from 'node:crypto'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { ColumnId, NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { KindName } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import { columnRights } from '#core/access/columns.ts'
import type { BoardColumn } from '#core/rules/column.ts'
import type { Snapshot } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import { cellsOf, type RowOfCells } from '../../store/content/row-cells.ts'
import type { FoundDocument, SearchDocument } from '../../store/search/index-port.ts'
import { need, snapshotAt } from '../../store/states.ts'
import { usageOfAll } from '../boards/usage.ts'
import type { Asker } from '../viewer/asker.ts'

/**
 * What stands in the cells of rows, as it is looked for. The columns that all who see a row see are one document of it;
 * each that is restricted is one of its own. What names people, places and files is not looked for: not all who see
 * it may know them.
 */
export type CellText = Pick<SearchDocument, 'part' | 'source' | 'body' | 'changedAt'> & {
  readonly changedBy: PersonId
}

const searchedKinds: ReadonlySet<KindName> = new Set([
  'text',
  'long text',
  'link',
  'state',
  'tags',
  'serial number',
])

interface Rows {
  readonly workspace: WorkspaceId
  readonly rows: readonly NodeId[]
}

/** By row. */
export async function cellTexts(
  parts: Parts,
  { workspace, rows }: Rows,
): Promise<ReadonlyMap<NodeId, readonly CellText[]>> {
  if (rows.length === 0) return new Map()
  const { states, tables } = parts.writer
  await need(states, workspace)
  const snapshot = snapshotAt(states, workspace, parts.clock())
  if (snapshot === undefined) return new Map()
  const columnsOf = searchedColumns(snapshot)
  const stored = await cellsOf(tables, { workspace, nodes: rows })
  return new Map(stored.map(row => [row.node, textsOf(snapshot, row, columnsOf)]))
}

interface Columns {
  readonly all: readonly BoardColumn[]
  /** Another one where they read what is stored otherwise. */
  readonly form: string
}

function searchedColumns({ state }: Snapshot): (board: NodeId) => Columns {
  const known = new Map<NodeId, Columns>()
  return board => {
    const found = known.get(board) ?? columnsFrom(rowsBy(state.columns, 'board', board))
    known.set(board, found)
    return found
  }
}

function columnsFrom(columns: readonly BoardColumn[]): Columns {
  const all = columns.filter(({ kind }) => searchedKinds.has(kind)).sort((a, b) => (a.id < b.id ? -1 : 1))
  const forms = all.map(({ id, kind, settings, former, viewers }) => [
    id,
    kind,
    settings,
    former,
    viewers === null,
  ])
  return { all, form: createHash('sha256').update(JSON.stringify(forms)).digest('base64url').slice(0, 8) }
}

function textsOf(
  snapshot: Snapshot,
  { node: id, version, cells }: RowOfCells,
  columnsOf: (board: NodeId) => Columns,
): CellText[] {
  const node = rowOf(snapshot.state.nodes, id)
  if (node?.parent == null) return []
  const { all, form } = columnsOf(node.parent)
  const usage = usageOfAll(snapshot)
  const open: Said[] = []
  const texts: CellText[] = []
  for (const column of all) {
    const cell = cells[column.id]
    const [value, at, by] =
      column.kind === 'serial number'
        ? [node.serial, node.madeAt, node.maker]
        : cell === undefined
          ? [null, 0, node.maker]
          : [cellValue(column, cell, usage), cell[1], cell[2]]
    if (value === null) continue
    const said = { id: column.id, words: kindOf(column).words(value, column.settings, usage), at, by }
    if (column.viewers === null) open.push(said)
    else texts.push(textFrom(`column:${column.id}`, `${version} ${form}`, [said]))
  }
  const codes = open.map(each => codeOf(each.id)).join(' ')
  return open.length === 0 ? texts : [textFrom('cells', `${version} ${form} ${codes}`, open), ...texts]
}

interface Said {
  readonly id: ColumnId
  readonly words: string
  readonly at: Instant
  readonly by: PersonId
}

function textFrom(part: CellText['part'], source: string, said: readonly Said[]): CellText {
  const last = said.reduce((newest, each) => (each.at > newest.at ? each : newest))
  return {
    part,
    source,
    body: said.map(each => each.words).join(' · '),
    changedAt: last.at,
    changedBy: last.by,
  }
}

/** A column in the source of a document, in short: two that are alike hide what they did not have to. */
const codeOf = (id: ColumnId): string => id.slice(-5)

/** Which restricted columns an asker sees: asked once for each board. */
export function columnsSeen({ snapshot, subject }: Asker): (column: ColumnId) => boolean {
  const rights = new Map<NodeId, ReadonlyMap<ColumnId, unknown>>()
  return id => {
    const column = rowOf(snapshot.state.columns, id)
    if (column === undefined) return false
    const known = rights.get(column.board) ?? columnRights(snapshot, subject, column.board)
    rights.set(column.board, known)
    return known.has(id)
  }
}

/** Whether a document of cells holds only what the asker sees: a column may be restricted since it was made. */
export function seesCells(
  { snapshot }: Asker,
  { node, part, source }: FoundDocument,
  sees: (column: ColumnId) => boolean,
): boolean {
  if (part.startsWith('column:')) return sees(part.slice('column:'.length) as ColumnId)
  if (part !== 'cells') return true
  const board = rowOf(snapshot.state.nodes, node)?.parent
  if (board == null) return false
  const codes = new Set(source.split(' ').slice(2))
  return rowsBy(snapshot.state.columns, 'board', board).every(
    ({ id, viewers }) => viewers === null || !codes.has(codeOf(id)) || sees(id),
  )
}
