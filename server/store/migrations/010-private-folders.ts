import type { Migration } from './list.ts'

/** Private folders were called by words that people had to guess. Nobody renames theirs: the name is ours. */
export const privateFolders: Migration = {
  name: '010-private-folders',
  up: async database => {
    await database.query(
      `UPDATE "nodes" SET "name" = 'My private folder' WHERE "name" = 'Kept to me' AND "home" LIKE '%"person"%'`,
    )
  },
}
