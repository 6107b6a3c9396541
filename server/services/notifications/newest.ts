import { QueryTypes } from 'sequelize'
import type { PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Parts } from '../../parts.ts'
import type { NotificationRow } from '../../store/tables.ts'

/**
 * What people were told last, kept from when they first ask for it until they are told more or mark it as read: it is
 * asked for with each page that is opened, and is seldom another.
 */
export interface Newest {
  readonly kept: Map<string, Promise<readonly NotificationRow[]>>
  /** Whose is another one once what is being written is committed. */
  readonly outdated: Set<string>
}

interface Whose {
  readonly workspace: WorkspaceId
  readonly person: PersonId
}

const shownAtMost = 200
/** The one who asked first of so many is forgotten. */
const keptAtMost = 500

export const createNewest = (): Newest => ({ kept: new Map(), outdated: new Set() })

const keyOf = ({ workspace, person }: Whose): string => `${workspace} ${person}`

/** The newest first. A read that fails is not kept. */
export function newestOf(
  { writer, newest: { kept } }: Parts,
  whose: Whose,
): Promise<readonly NotificationRow[]> {
  const key = keyOf(whose)
  const before = kept.get(key)
  if (before !== undefined) return before
  const { workspace, person } = whose
  // By a statement of our own: a finder of sequelize's asks for the columns of the table first, each time.
  const rows = writer.tables.database.query<NotificationRow>(
    'SELECT * FROM "notifications" WHERE "workspace" = $workspace AND "person" = $person ORDER BY "id" DESC LIMIT $most',
    { type: QueryTypes.SELECT, bind: { workspace, person, most: shownAtMost } },
  )
  const [oldest] = kept.size < keptAtMost ? [] : kept.keys()
  if (oldest !== undefined) kept.delete(oldest)
  kept.set(key, rows)
  rows.catch(() => kept.delete(key))
  return rows
}

/** Said while it is being written. What is kept stays true until that is committed, and is let go then. */
export const outdate = ({ newest: { outdated } }: Parts, whose: Whose): void =>
  void outdated.add(keyOf(whose))

/** Done after each commit: no two are under way at once. */
export function forgetOutdated({ newest: { kept, outdated } }: Parts): void {
  for (const key of outdated) kept.delete(key)
  outdated.clear()
}
