import type { Migration } from './list.ts'

/*
 * Most places are plain: nothing is noted, broken, hidden or closed at them. Those that are not are found without
 * looking at every place; loading.ts asks for them in the same words.
 */
const statement = `CREATE INDEX "nodesSpecial" ON nodes (workspace)
  WHERE note <> '' OR home IS NOT NULL OR broken IS NOT NULL OR draft OR archived
  OR binned IS NOT NULL OR web IS NOT NULL`

export const specialPlaces: Migration = {
  name: '007-special-places',
  up: async database => {
    await database.query(statement)
  },
}
