import { Op, QueryTypes, type Transaction } from 'sequelize'
import type { CellValue } from '#core/boards/kind.ts'
import type { NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { Condition, CopiedContent, CopiedPlace, RowChange } from '../commit.ts'
import type { CellChangesRow, RowCellsRow, Tables } from '../tables.ts'
import type { ContentKind, Places } from './kind.ts'

/**
 * What stands in the cells of rows: one record a row, since a board is read as a whole; with every write of it kept beside,
 * of each row the newest. A column that is no more keeps its cells here until they are swept.
 */

/**
 * What stands in a cell, since when and by whom, and which of its column's forms it was written in (the number of those
 * that were before). When is its version, too: it grows with each write.
 */
export type StoredCell = readonly [value: CellValue, at: Instant, by: PersonId, form: number]
export type StoredCells = Readonly<Record<string, StoredCell>>
/** By column, what stood there before and after; `null` where nothing was ever written. */
export type StoredChanges = Readonly<Record<string, readonly [StoredCell | null, StoredCell | null]>>

export interface RowOfCells {
  readonly node: NodeId
  readonly version: number
  readonly cells: StoredCells
}

export interface CellWrite extends RowOfCells {
  readonly changes: StoredChanges
  readonly at: Instant
  readonly by: PersonId
}

/** So many writes of a row are kept. */
const changesKept = 1000
/** So many rows are asked for, or held to their version, in one statement. */
const together = 200

const read = ({ node, version, cells }: CellsText): RowOfCells => ({
  node,
  version,
  cells: JSON.parse(cells) as StoredCells,
})

/** The cells of a row as they are stored: JSON of `StoredCells`. */
export interface CellsText {
  readonly node: NodeId
  readonly version: number
  readonly cells: string
}

/** Of some rows, those that were ever written in. */
export const cellsOf = async (tables: Tables, places: Places): Promise<RowOfCells[]> =>
  (await cellTextsOf(tables, places)).map(read)

/** The same, to be read elsewhere. */
export async function cellTextsOf(tables: Tables, { workspace, nodes }: Places): Promise<CellsText[]> {
  const found: CellsText[] = []
  for (let from = 0; from < nodes.length; from += together) {
    const node = nodes.slice(from, from + together)
    const rows = await tables.rowCells.findAll({ where: { workspace, node }, raw: true })
    found.push(...(rows as unknown as RowCellsRow[]))
  }
  return found
}

interface OfBoard {
  readonly workspace: WorkspaceId
  readonly board: NodeId
  readonly atOnce: number
}

/** All of one board, so many at a time, by the ids of its rows. */
export async function* cellsOfBoard(
  tables: Tables,
  { workspace, board, atOnce }: OfBoard,
): AsyncGenerator<RowOfCells[]> {
  let last = ''
  for (;;) {
    const rows = await tables.database.query<RowCellsRow>(
      `SELECT c.node, c.version, c.cells FROM "rowCells" c
       JOIN nodes n ON n.workspace = c.workspace AND n.id = c.node
       WHERE n.workspace = ? AND n.parent = ? AND n.id > ? ORDER BY n.id LIMIT ${atOnce}`,
      { type: QueryTypes.SELECT, replacements: [workspace, board, last] },
    )
    if (rows.length > 0) yield rows.map(read)
    if (rows.length < atOnce) return
    last = rows.at(-1)?.node ?? ''
  }
}

/** Each on top of the version that it was worked out from, which has to be the newest still. */
export function writeCells<E>(
  workspace: WorkspaceId,
  writes: readonly CellWrite[],
  orElse: E,
): { readonly conditions: Condition<E>[]; readonly rows: RowChange[] } {
  const first = writes.filter(each => each.version === 1).map(each => each.node)
  const later = writes.filter(each => each.version > 1)
  const conditions: Condition<E>[] = parted(first).map(node => ({
    table: 'rowCells',
    where: { workspace, node },
    atMost: 0,
    orElse,
  }))
  for (const some of parted(later))
    conditions.push({
      table: 'rowCells',
      where: { workspace, node: some.map(each => each.node), [Op.or]: byVersionBefore(some) },
      atLeast: some.length,
      orElse,
    })
  const old = later.filter(each => each.version > changesKept)
  return {
    conditions,
    rows: [
      ...old.map(({ node, version }): RowChange => ({
        kind: 'delete',
        table: 'cellChanges',
        where: { workspace, node, version: { [Op.lte]: version - changesKept } },
      })),
      {
        kind: 'put',
        table: 'rowCells',
        rows: writes.map(({ node, version, cells }) => ({
          workspace,
          node,
          version,
          cells: JSON.stringify(cells),
        })),
        replaced: ['version', 'cells'],
      },
      {
        kind: 'put',
        table: 'cellChanges',
        rows: writes.map(({ node, version, at, by, changes }) => ({
          workspace,
          node,
          version,
          at,
          by,
          changes: JSON.stringify(changes),
        })),
      },
    ],
  }
}

/** The nodes are said twice: without the first time SQLite goes through all rows, with each of these alternatives. */
function byVersionBefore(writes: readonly CellWrite[]) {
  const nodes = new Map<number, NodeId[]>()
  for (const { node, version } of writes) nodes.set(version - 1, [...(nodes.get(version - 1) ?? []), node])
  return [...nodes].map(([version, node]) => ({ version, node }))
}

function parted<T>(list: readonly T[]): T[][] {
  const parts: T[][] = []
  for (let from = 0; from < list.length; from += together) parts.push(list.slice(from, from + together))
  return parts
}

export interface KeptChanges {
  readonly version: number
  readonly at: Instant
  readonly by: PersonId
  readonly changes: StoredChanges
}

/** How a row's cells came to be as they are, the newest first. */
export async function changesOf(
  tables: Tables,
  where: { readonly workspace: WorkspaceId; readonly node: NodeId; readonly version?: number },
): Promise<KeptChanges[]> {
  const rows = await tables.cellChanges.findAll({
    where: { ...where },
    order: [['version', 'DESC']],
    raw: true,
  })
  return (rows as unknown as CellChangesRow[]).map(({ version, at, by, changes }) => ({
    version,
    at,
    by,
    changes: JSON.parse(changes) as StoredChanges,
  }))
}

const tablesOfCells = ['rowCells', 'cellChanges'] as const

export const rowCells: ContentKind = {
  noneIn: ({ workspace, nodes }, orElse) => ({
    table: 'rowCells',
    where: { workspace, node: [...nodes] },
    atMost: 0,
    orElse,
  }),
  deletion: ({ workspace, nodes }) =>
    tablesOfCells.map(table => ({ kind: 'delete', table, where: { workspace, node: [...nodes] } })),
  copy: async (tables, copied, transaction) => {
    const rows = copied.copies.filter(each => (each.columns?.length ?? 0) > 0)
    for (let from = 0; from < rows.length; from += together)
      await copyCells(tables, { copied, rows: rows.slice(from, from + together), transaction })
  },
}

interface Copying {
  readonly copied: CopiedContent
  readonly rows: readonly CopiedPlace[]
  readonly transaction: Transaction
}

/** Files that lie in a row are copied with it: its cells name the copies. */
async function copyCells(tables: Tables, { copied, rows, transaction }: Copying): Promise<void> {
  const { workspace, at, copies } = copied
  const copyOf = new Map(copies.map(each => [each.from, each.to]))
  const found = await tables.rowCells.findAll({
    where: { workspace, node: rows.map(each => each.from) },
    raw: true,
    transaction,
  })
  const cellsOfRow = new Map(
    (found as unknown as RowCellsRow[]).map(row => [row.node as string, read(row).cells]),
  )
  const made = rows.flatMap(({ from, to, by, columns = [] }) => {
    const cells = Object.entries(cellsOfRow.get(from) ?? {}).flatMap(([column, [value, , , form]]) => {
      const target = columns.find(each => each[0] === column)?.[1]
      if (target === undefined || value === null) return []
      const named = Array.isArray(value)
        ? (value as readonly string[]).map(each => copyOf.get(each) ?? each)
        : value
      return [[target, [named, at, by, form]] as const]
    })
    return cells.length === 0
      ? []
      : [{ workspace, node: to, version: 1, cells: JSON.stringify(Object.fromEntries(cells)) }]
  })
  if (made.length > 0) await tables.rowCells.bulkCreate(made, { transaction })
}
