import type { Migration } from './list.ts'

/** How often somebody did what may be done only so often in an hour. */
export const uses: Migration = {
  name: '009-uses',
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
  },
}
