import { QueryTypes, type Sequelize } from 'sequelize'
import { completeHistory } from './history.ts'
import type { Migration } from './list.ts'

/*
 * What a grant gives lies in two columns: a set of actions, or a level of the workspace's own. In one, a level whose id
 * was all digits was read as a set. Where both fit, the level is meant: that is what was judged.
 *
 * A place tells since when it is archived; a People lead may suspend; and on the root, on which nothing but grants and
 * limits stands, whatever else was set is taken off.
 */
const statements = [
  'ALTER TABLE grants ADD COLUMN actions BIGINT',
  'ALTER TABLE grants ADD COLUMN level TEXT',
  `UPDATE grants SET level = gives WHERE EXISTS
    (SELECT 1 FROM levels WHERE levels.workspace = grants.workspace AND levels.id = grants.gives)`,
  'UPDATE grants SET actions = CAST(gives AS INTEGER) WHERE level IS NULL',
  'ALTER TABLE grants DROP COLUMN gives',
  'ALTER TABLE nodes ADD COLUMN "archivedAt" BIGINT',
  `UPDATE nodes SET broken = NULL, draft = FALSE, archived = FALSE, binned = NULL, web = NULL
    WHERE kind = 'root' AND (broken IS NOT NULL OR draft OR archived OR binned IS NOT NULL OR web IS NOT NULL)`,
]

export const setAndLevel: Migration = {
  name: '008-set-and-level',
  up: async database => {
    for (const statement of statements) await database.query(statement)
    // For what is archived already the thirty days begin now.
    await database.query('UPDATE nodes SET "archivedAt" = ? WHERE archived', { replacements: [Date.now()] })
    await completeHistory(database, { nodes: { archivedAt: null } })
    await giveSuspend(database)
  },
}

/** Built-in roles are stored as they were when the workspace was made. */
async function giveSuspend(database: Sequelize): Promise<void> {
  const rows = await database.query<{ workspace: string; privileges: string }>(
    "SELECT workspace, privileges FROM roles WHERE id = 'role-people-lead'",
    { type: QueryTypes.SELECT },
  )
  for (const { workspace, privileges } of rows) {
    const held = JSON.parse(privileges) as string[]
    if (held.includes('suspend')) continue
    await database.query("UPDATE roles SET privileges = ? WHERE workspace = ? AND id = 'role-people-lead'", {
      replacements: [JSON.stringify([...held, 'suspend']), workspace],
    })
  }
}
