import { type Model, type ModelStatic, QueryTypes, type Transaction, type WhereOptions } from 'sequelize'
import type { TableName } from '#core/state/kinds.ts'
import { createBreath, jsonOf } from '../breath.ts'
import type { Condition, PutRows, RowChange, SumCondition, UseCondition } from './commit.ts'
import { columnNamesOf, toRow } from './fields.ts'
import { contentKinds } from './content/all.ts'
import type { Tables } from './tables.ts'

/**
 * Rows that wait to be written together: what many writes put into one table, or take out of it, goes in one
 * statement, so that fifty at once cost little more than one. Within a table the order is kept; between tables none
 * is needed, since references are checked at commit.
 */
export interface Batch {
  readonly tables: Tables
  readonly transaction: Transaction
  readonly groups: Group[]
}

type Group = { readonly model: ModelStatic<Model> } & (
  | { readonly kind: 'put'; readonly rows: Map<unknown, object>; readonly replaced: readonly string[] }
  | { readonly kind: 'drop'; readonly workspace: string; readonly ids: string[] }
)

export const createBatch = (tables: Tables, transaction: Transaction): Batch => ({
  tables,
  transaction,
  groups: [],
})

/** Writes what cannot wait, and puts the rest into the batch: it is in the file once that is flushed. */
export async function putChanges(batch: Batch, changes: readonly RowChange[]): Promise<void> {
  const { tables, transaction } = batch
  for (const change of changes)
    switch (change.kind) {
      case 'records':
        await putRecords(batch, change)
        break
      case 'put':
        put(batch, tables[change.table], { ...change, rows: await withJson(change) })
        break
      case 'drop':
        drop(batch, tables[change.table], change)
        break
      case 'update':
        await tables[change.table].update(change.fields, { where: change.where, transaction })
        break
      case 'delete':
        await tables[change.table].destroy({ where: change.where, transaction })
        break
      case 'copies':
        for (const kind of contentKinds) await kind.copy(tables, change, transaction)
    }
}

/** The first of some conditions that does not hold; what they count is counted where all do. */
export async function unmet<E>(
  { tables, transaction }: Batch,
  conditions: readonly Condition<E>[],
): Promise<Condition<E> | undefined> {
  const uses: UseCondition<E>[] = []
  for (const condition of conditions) {
    if ('uses' in condition) {
      if ((await usesAfter(tables, condition, transaction)) > condition.atMost) return condition
      uses.push(condition)
      continue
    }
    if ('sums' in condition) {
      if ((await sumWith(tables, condition, transaction)) > condition.atMost) return condition
      continue
    }
    const { table, where, atLeast = 0, atMost = Infinity } = condition
    const count = await tables[table].count({ where, transaction })
    if (count < atLeast || count > atMost) return condition
  }
  for (const each of uses) await countUses(tables, each, transaction)
  return undefined
}

async function sumWith(
  tables: Tables,
  { sums, more }: SumCondition<unknown>,
  transaction: Transaction,
): Promise<number> {
  let sum = more
  for (const { table, column, where } of sums)
    // Of no rows there is no sum.
    sum += ((await tables[table].sum(column, { where, transaction })) as number | null) ?? 0
  return sum
}

async function usesAfter(
  { uses: model }: Tables,
  { uses: { workspace, who, what, hour, count } }: UseCondition<unknown>,
  transaction: Transaction,
): Promise<number> {
  const where = { workspace, who, what, hour }
  const found = (await model.findOne({ where, raw: true, transaction })) as unknown as UsesRow | null
  return (found?.times ?? 0) + count
}

interface UsesRow {
  readonly times: number
}

/** Of each there is one row: an hour that is over is written over. */
async function countUses(
  { database }: Tables,
  { uses }: UseCondition<unknown>,
  transaction: Transaction,
): Promise<void> {
  await database.query(
    `INSERT INTO uses (workspace, who, what, hour, times) VALUES (:workspace, :who, :what, :hour, :count)
      ON CONFLICT (workspace, who, what) DO UPDATE SET
        times = CASE WHEN uses.hour = excluded.hour THEN uses.times ELSE 0 END + excluded.times,
        hour = excluded.hour`,
    { replacements: { ...uses }, transaction, type: QueryTypes.RAW },
  )
}

interface Put {
  readonly rows: readonly object[]
  readonly replaced?: readonly string[]
}

function put(batch: Batch, model: ModelStatic<Model>, { rows, replaced = [] }: Put): void {
  if (rows.length === 0) return
  let group = lastOf(batch, model)
  if (group?.kind !== 'put') {
    group = { model, kind: 'put', rows: new Map(), replaced }
    batch.groups.push(group)
  }
  // Of what may be there already the last one of a key is the one that stays; what must be new is never one for two.
  const keys = model.primaryKeyAttributes as readonly (keyof object)[]
  for (const row of rows)
    group.rows.set(replaced.length === 0 ? row : keys.map(key => String(row[key])).join(' '), row)
}

/** Takes out the rows of a workspace with these ids. */
function drop(
  batch: Batch,
  model: ModelStatic<Model>,
  { workspace, ids }: { readonly workspace: string; readonly ids: readonly string[] },
): void {
  if (ids.length === 0) return
  const group = lastOf(batch, model)
  if (group?.kind === 'drop' && group.workspace === workspace) group.ids.push(...ids)
  else batch.groups.push({ model, kind: 'drop', workspace, ids: [...ids] })
}

const lastOf = ({ groups }: Batch, model: ModelStatic<Model>): Group | undefined =>
  groups.findLast(each => each.model === model)

/** Long statements are cut: no database takes endless ones, and others are let in after each. */
const mostRows = 100

export async function flush({ transaction, groups }: Batch): Promise<void> {
  for (const group of groups.splice(0)) {
    if (group.kind === 'drop') {
      const { workspace, ids } = group
      await group.model.destroy({ where: { workspace, id: ids } as WhereOptions, transaction })
      continue
    }
    const rows = [...group.rows.values()]
    const replacing = group.replaced.length === 0 ? {} : { updateOnDuplicate: [...group.replaced] }
    for (let from = 0; from < rows.length; from += mostRows)
      await group.model.bulkCreate(rows.slice(from, from + mostRows) as never, { transaction, ...replacing })
  }
}

async function withJson({ rows, json = [] }: PutRows): Promise<readonly object[]> {
  if (json.length === 0) return rows
  const written: object[] = []
  for (const row of rows) {
    const next = { ...row } as Record<string, unknown>
    for (const field of json) next[field] = await jsonOf(next[field] as readonly unknown[])
    written.push(next)
  }
  return written
}

/** What is gone goes first: its place may be taken again. */
async function putRecords(
  batch: Batch,
  { workspace, changes }: Extract<RowChange, { kind: 'records' }>,
): Promise<void> {
  const { kinds, records } = batch.tables
  const gone = new Map<TableName, string[]>()
  const rows = new Map<TableName, object[]>()
  const breathe = createBreath()
  for (const { table, id, after } of changes) {
    await breathe()
    if (after === null) listIn(gone, table).push(id)
    else listIn(rows, table).push(toRow(kinds[table].fields, workspace, after as never))
  }
  for (const [table, ids] of gone) drop(batch, records[table], { workspace, ids })
  for (const [table, some] of rows) {
    // Not the id: to write that, even the same, is to look for all that refers to it.
    const replaced = columnNamesOf(kinds[table].fields).filter(column => column !== 'id')
    put(batch, records[table], { rows: some, replaced })
  }
}

function listIn<K, V>(lists: Map<K, V[]>, key: K): V[] {
  const list = lists.get(key) ?? []
  lists.set(key, list)
  return list
}

/** Writes some rows at once: what stands before every history, and in tests. */
export async function writeRows(
  tables: Tables,
  changes: readonly RowChange[],
  transaction: Transaction,
): Promise<void> {
  const batch = createBatch(tables, transaction)
  await putChanges(batch, changes)
  await flush(batch)
}
