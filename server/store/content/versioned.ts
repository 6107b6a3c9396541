import type { Transaction } from 'sequelize'
import { Op } from 'sequelize'
import type { NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { Condition, CopiedContent, PutRows, RowChange } from '../commit.ts'
import type { OwnTable, Tables } from '../tables.ts'
import type { ContentKind, Places } from './kind.ts'

/** One version of what is written in a place, from 1. */
export interface VersionRow {
  readonly workspace: WorkspaceId
  readonly node: NodeId
  readonly version: number
  readonly changedAt: Instant
  readonly changedBy: PersonId
}

/** Content that is kept whole, version by version; of each place so many, the newest. */
export interface VersionedKind<Row extends VersionRow, Whole extends keyof Row = never> extends ContentKind {
  readonly newest: (tables: Tables, at: Place) => Promise<Row | undefined>
  /** Of several places, each of which something is written in. */
  readonly newestIn: (tables: Tables, at: Places) => Promise<Row[]>
  readonly version: (tables: Tables, at: Place & { readonly version: number }) => Promise<Row | undefined>
  /** What is told of each version without reading it (who wrote it when, and `heads`), newest first. */
  readonly versions: (tables: Tables, at: Place) => Promise<Omit<Row, Whole>[]>
  /** A version on top of the one before it, which has to be the newest still. */
  readonly write: <E>(row: Row, orElse: E, most?: number) => Writing<E>
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

interface Kept<Row, Whole extends keyof Row> {
  readonly table: OwnTable
  /** Of each place so many are kept. */
  readonly mostVersions: number
  /** The fields that are long, and only read with one version. */
  readonly whole: readonly Whole[]
}

export function versioned<Row extends VersionRow, Whole extends keyof Row & string = never>({
  table,
  mostVersions,
  whole,
}: Kept<Row, Whole>): VersionedKind<Row, Whole> {
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
    newestIn: async (tables, { workspace, nodes }) => {
      const found: VersionRow[] = []
      for (let from = 0; from < nodes.length; from += together)
        found.push(
          ...(await newestOf(tables, { table, workspace, nodes: nodes.slice(from, from + together) })),
        )
      return found as unknown as Row[]
    },
    version: one,
    versions: async (tables, { workspace, node }) =>
      (await tables[table].findAll({
        attributes: { exclude: [...whole] },
        where: { workspace, node },
        order: [['version', 'DESC']],
        raw: true,
      })) as unknown as Omit<Row, Whole>[],
    write: (row, orElse, most = mostVersions) => written(table, most, { row, orElse }),
    noneIn: ({ workspace, nodes }, orElse) => ({
      table,
      where: { workspace, node: [...nodes] },
      atMost: 0,
      orElse,
    }),
    deletion: ({ workspace, nodes }) => [{ kind: 'delete', table, where: { workspace, node: [...nodes] } }],
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
  const oldest: RowChange = {
    kind: 'delete',
    table,
    where: { ...at, version: { [Op.lte]: version - mostVersions } },
  }
  return {
    conditions: isFirst ? [newer] : [newer, before],
    rows: version > mostVersions ? [oldest, put] : [put],
  }
}

interface NewestOf extends Places {
  readonly table: OwnTable
  readonly transaction?: Transaction
}

/** The newest version of each of a few places. */
async function newestOf(
  tables: Tables,
  { table, workspace, nodes, transaction }: NewestOf,
): Promise<VersionRow[]> {
  const { database } = tables
  const options = { raw: true, ...(transaction === undefined ? {} : { transaction }) } as const
  const newest = (await tables[table].findAll({
    attributes: ['node', [database.fn('max', database.col('version')), 'version']],
    where: { workspace, node: [...nodes] },
    group: ['node'],
    ...options,
  })) as unknown as Pick<VersionRow, 'node' | 'version'>[]
  if (newest.length === 0) return []
  return (await tables[table].findAll({
    where: { workspace, [Op.or]: newest.map(({ node, version }) => ({ node, version })) },
    ...options,
  })) as unknown as VersionRow[]
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
  for (let from = 0; from < copies.length; from += together) {
    const some = copies.slice(from, from + together)
    const nodes = some.map(each => each.from as NodeId)
    const rows = await newestOf(tables, { table, workspace, nodes, transaction })
    if (rows.length === 0) continue
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
