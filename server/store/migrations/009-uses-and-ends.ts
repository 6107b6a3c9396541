import { completeHistory } from './history.ts'
import type { Migration } from './list.ts'

/** How often somebody did what may be done only so often in an hour; and when a workspace ends sign-ins. */
export const usesAndEnds: Migration = {
  name: '009-uses-and-ends',
  up: async database => {
    await database.query(
      `CREATE TABLE uses (
        workspace TEXT NOT NULL,
        who TEXT NOT NULL,
        what TEXT NOT NULL,
        hour BIGINT NOT NULL,
        times BIGINT NOT NULL,
        PRIMARY KEY (workspace, who, what))`,
    )
    await database.query('ALTER TABLE workspaces ADD COLUMN "signInDays" BIGINT NOT NULL DEFAULT 14')
    await database.query('ALTER TABLE workspaces ADD COLUMN "idleHours" BIGINT NOT NULL DEFAULT 168')
    await completeHistory(database, { workspaces: { signInDays: 14, idleHours: 168 } })
  },
}
