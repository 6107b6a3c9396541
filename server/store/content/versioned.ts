import type { Transaction } from 'sequelize'
import { Op } from 'sequelize'
import type { NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { Condition, CopiedContent, PutRows, RowChange } from '../commit.ts'
import type { OwnTable, Tables } from '../tables.ts'
import type { ContentKind } from './kind.ts'

/** One version of what is written in a place, from 1. */
export interface VersionRow {
  readonly workspace: WorkspaceId
  readonly node: NodeId
  readonly version: number
  readonly changedAt: Instant
  readonly changedBy: PersonId
}

/** Content that is kept whole, version by version; of each place so many, the newest. */
export interface VersionedKind<Row extends VersionRow> extends ContentKind {
  readonly newest: (tables: Tables, at: Place) => Promise<Row | undefined>
  readonly version: (tables: Tables, at: Place & { readonly version: number }) => Promise<Row | undefined>
  /** Who wrote which version when, newest first. */
  readonly versions: (tables: Tables, at: Place) => Promise<VersionRow[]>
  /** A version on top of the one before it, which has to be the newest still. */
  readonly write: <E>(row: Row, orElse: E) => Writing<E>
}

export interface Place {
  readonly workspace: WorkspaceId
  readonly node: NodeId
}

interface Writing<E> {
  readonly conditions: readonly Condition<E>[]
  readonly rows: readonly RowChange[]
}

/** So many places are asked about in one statement. */
const together = 200

export function versioned<Row extends VersionRow>(table: OwnTable, mostVersions: number): VersionedKind<Row> {
  const heads = ['workspace', 'node', 'version', 'changedAt', 'changedBy']
  const one = async (tables: Tables, where: Place & { readonly version?: number }) => {
    const found = await tables[table].findOne({
      where: { ...where },
      order: [['version', 'DESC']],
      raw: true,
    })
    return found === null ? undefined : (found as unknown as Row)
  }
  return {
    newest: one,
    version: one,
    versions: async (tables, { workspace, node }) =>
      (await tables[table].findAll({
        attributes: heads,
        where: { workspace, node },
        order: [['version', 'DESC']],
        raw: true,
      })) as unknown as VersionRow[],
    write: (row, orElse) => written(table, mostVersions, { row, orElse }),
    noneIn: ({ workspace, nodes }, orElse) => ({
      table,
      where: { workspace, node: [...nodes] },
      atMost: 0,
      orElse,
    }),
    deletion: ({ workspace, nodes }) => ({ kind: 'delete', table, where: { workspace, node: [...nodes] } }),
    copy: (tables, copied, transaction) =>
      copied.copies.length === 0 ? Promise.resolve() : copyNewest(tables, table, { copied, transaction }),
  }
}

function written<E>(
  table: OwnTable,
  mostVersions: number,
  { row, orElse }: { readonly row: VersionRow; readonly orElse: E },
): Writing<E> {
  const { workspace, node, version } = row
  const at = { workspace, node }
  const isFirst = version === 1
  const newer = { table, where: { ...at, version: { [Op.gte]: version } }, atMost: 0, orElse }
  const before = { table, where: { ...at, version: version - 1 }, atLeast: 1, orElse }
  const put: PutRows = { kind: 'put', table, rows: [row] }
  const oldest: RowChange = { kind: 'delete', table, where: { ...at, version: version - mostVersions } }
  return {
    conditions: isFirst ? [newer] : [newer, before],
    rows: version > mostVersions ? [oldest, put] : [put],
  }
}

interface Copying {
  readonly copied: CopiedContent
  readonly transaction: Transaction
}

async function copyNewest(
  tables: Tables,
  table: OwnTable,
  { copied: { workspace, at, copies }, transaction }: Copying,
): Promise<void> {
  const { database } = tables
  for (let from = 0; from < copies.length; from += together) {
    const some = copies.slice(from, from + together)
    const newest = (await tables[table].findAll({
      attributes: ['node', [database.fn('max', database.col('version')), 'version']],
      where: { workspace, node: some.map(each => each.from) },
      group: ['node'],
      transaction,
      raw: true,
    })) as unknown as Pick<VersionRow, 'node' | 'version'>[]
    if (newest.length === 0) continue
    const rows = (await tables[table].findAll({
      where: { workspace, [Op.or]: newest.map(({ node, version }) => ({ node, version })) },
      transaction,
      raw: true,
    })) as unknown as VersionRow[]
    const rowOf = new Map<string, VersionRow>(rows.map(row => [row.node, row]))
    await tables[table].bulkCreate(
      some.flatMap(each => {
        const row = rowOf.get(each.from)
        return row === undefined
          ? []
          : [{ ...row, node: each.to, version: 1, changedAt: at, changedBy: each.by }]
      }),
      { transaction },
    )
  }
}
