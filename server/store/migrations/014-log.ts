import type { Migration } from './list.ts'

/** What was written, in order, for all who keep something beside the database. */
export const log: Migration = {
  name: '014-log',
  up: async database => {
    await database.query(
      'CREATE TABLE log (position BIGINT PRIMARY KEY, id TEXT NOT NULL, "at" BIGINT NOT NULL, news TEXT NOT NULL)',
    )
  },
}
