import type { Model, ModelStatic, WhereOptions } from 'sequelize'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { SumCondition } from '../../store/commit.ts'
import type { Tables } from '../../store/tables.ts'

/** What counts against the quota: all versions of all files, and all that is on its way. */
const counted = ['fileVersions', 'uploads'] as const

interface Demand {
  readonly workspace: WorkspaceId
  readonly storageQuota: number | null
  /** How many bytes are to come. */
  readonly more: number
}

/** Holds where there is room for some bytes besides. */
export const withinQuota = <E>({ workspace, storageQuota, more }: Demand, orElse: E): SumCondition<E>[] =>
  storageQuota === null
    ? []
    : [
        {
          sums: counted.map(table => ({ table, column: 'size', where: { workspace } })),
          more,
          atMost: storageQuota,
          orElse,
        },
      ]

export async function usedBytes(tables: Tables, workspace: WorkspaceId): Promise<number> {
  const sums = await Promise.all(counted.map(each => sizeOf(tables[each], { workspace })))
  return sums.reduce((sum, each) => sum + each, 0)
}

/** The sizes of some rows together: of none a database says nothing. */
export const sizeOf = async (table: ModelStatic<Model>, where: WhereOptions): Promise<number> =>
  Number(((await table.sum('size', { where })) as number | string | null) ?? 0)
