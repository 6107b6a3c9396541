import { QueryTypes } from 'sequelize'
import type { PersonId, WorkspaceId } from '#core/base/ids.ts'
import type { Parts } from '../../parts.ts'
import type { Follower } from '../../store/log.ts'
import type { NotificationRow } from '../../store/tables.ts'

/**
 * What people were told last, kept from when they first ask for it until they are told more or mark it as read: it is
 * asked for with each page that is opened, and is seldom another.
 */
export type Newest = Map<string, Promise<readonly NotificationRow[]>>

/** Lets go of what is another one now. */
export const followerOfNewest = (newest: Newest): Follower => ({
  load: () => newest.clear(),
  hear: ({ news }) => {
    for (const each of news)
      if (each.of === 'notifications')
        for (const person of each.people) newest.delete(keyOf({ workspace: each.workspace, person }))
  },
})

interface Whose {
  readonly workspace: WorkspaceId
  readonly person: PersonId
}

const shownAtMost = 200
/** The one who asked first of so many is forgotten. */
const keptAtMost = 500

const keyOf = ({ workspace, person }: Whose): string => `${workspace} ${person}`

/** The newest first. A read that fails is not kept. */
export function newestOf({ writer, newest }: Parts, whose: Whose): Promise<readonly NotificationRow[]> {
  const key = keyOf(whose)
  const before = newest.get(key)
  if (before !== undefined) return before
  const { workspace, person } = whose
  // By a statement of our own: a finder of sequelize's asks for the columns of the table first, each time.
  const rows = writer.tables.database.query<NotificationRow>(
    'SELECT * FROM "notifications" WHERE "workspace" = $workspace AND "person" = $person ORDER BY "id" DESC LIMIT $most',
    { type: QueryTypes.SELECT, bind: { workspace, person, most: shownAtMost } },
  )
  const [oldest] = newest.size < keptAtMost ? [] : newest.keys()
  if (oldest !== undefined) newest.delete(oldest)
  newest.set(key, rows)
  rows.catch(() => newest.delete(key))
  return rows
}
