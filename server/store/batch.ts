import type { Model, ModelStatic, Transaction, WhereOptions } from 'sequelize'

/**
 * Rows that wait to be written together: what many writes put into one table, or take out of it, goes in one
 * statement, so that fifty at once cost little more than one. Within a table the order is kept; between tables none
 * is needed, since references are checked at commit. What must be read or written at once has the transaction.
 */
export interface Batch {
  readonly transaction: Transaction
  readonly groups: Group[]
}

type Group = { readonly model: ModelStatic<Model> } & (
  | { readonly kind: 'put'; readonly rows: Map<unknown, object>; readonly replaced: readonly string[] }
  | { readonly kind: 'drop'; readonly workspace: string; readonly ids: string[] }
)

export const createBatch = (transaction: Transaction): Batch => ({ transaction, groups: [] })

interface Rows {
  readonly rows: readonly object[]
  /** What tells rows apart, where the last one of a key is the one that stays; none where each is new. */
  readonly keyOf?: (row: object) => string
  /** The fields that are overwritten where a row is there already; none where it must be new. */
  readonly replaced?: readonly string[]
}

export function put(batch: Batch, model: ModelStatic<Model>, { rows, keyOf, replaced = [] }: Rows): void {
  if (rows.length === 0) return
  let group = lastOf(batch, model)
  if (group?.kind !== 'put') {
    group = { model, kind: 'put', rows: new Map(), replaced }
    batch.groups.push(group)
  }
  for (const row of rows) group.rows.set(keyOf?.(row) ?? row, row)
}

/** Takes out the rows of a workspace with these ids. */
export function drop(
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
