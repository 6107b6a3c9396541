import { Op } from 'sequelize'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { RecordChange } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import type { RowChange } from '../../store/commit.ts'
import type { FormerNameRow } from '../../store/tables.ts'
import type { Asker } from '../viewer/asker.ts'

/** What things were called at an entry of the history, where that is not their name of today. */
export type NamesThen = (table: string, id: string) => string | undefined

interface Renaming {
  readonly workspace: WorkspaceId
  readonly revision: number
  readonly changes: readonly RecordChange[]
}

export function formerNames({ workspace, revision, changes }: Renaming): RowChange {
  const rows = changes.flatMap(({ table, id, before, after }) => {
    const [name, now] = [nameIn(before), nameIn(after)]
    // Somebody who was invited goes by an address until they have a name.
    return !name || now === undefined || name === now ? [] : [{ workspace, table, id, revision, name }]
  })
  return { kind: 'put', table: 'formerNames', rows }
}

const nameIn = (row: object | null): string | undefined =>
  (row as { readonly name?: string } | null)?.name ?? undefined

/**
 * The names of some entries' days, the oldest of which is given. One reading: things are renamed seldom, and what is
 * renamed after the newest entry counts as well.
 */
export async function formerNamesSince(
  { writer }: Parts,
  { workspace }: Pick<Asker, 'workspace'>,
  oldest: number,
): Promise<(revision: number) => NamesThen> {
  const rows = (await writer.tables.formerNames.findAll({
    where: { workspace, revision: { [Op.gt]: oldest } },
    order: [['revision', 'ASC']],
    raw: true,
  })) as unknown as FormerNameRow[]
  const renamings = new Map<string, FormerNameRow[]>()
  for (const row of rows) {
    const key = `${row.table} ${row.id}`
    const list = renamings.get(key)
    if (list === undefined) renamings.set(key, [row])
    else list.push(row)
  }
  // The name that it lost first after the entry is the one that it had then.
  return revision => (table, id) =>
    renamings.get(`${table} ${id}`)?.find(row => row.revision > revision)?.name
}
