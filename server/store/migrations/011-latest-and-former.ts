import { QueryTypes, type Sequelize } from 'sequelize'
import type { Migration } from './list.ts'

interface Change {
  readonly table: string
  readonly id: string
  readonly before: { readonly name?: string } | null
  readonly after: { readonly name?: string } | null
}

/**
 * Who changed each place last, and what things were called before: both follow from the history, and lie
 * beside it to be found without reading all of it.
 */
export const latestAndFormer: Migration = {
  name: '011-latest-and-former',
  up: async database => {
    await database.query(
      `CREATE TABLE "placeChanges" (
        workspace TEXT NOT NULL, id TEXT NOT NULL, "at" BIGINT NOT NULL, "by" TEXT,
        PRIMARY KEY (workspace, id),
        FOREIGN KEY (workspace, id) REFERENCES nodes (workspace, id) DEFERRABLE INITIALLY DEFERRED)`,
    )
    await database.query(
      `CREATE TABLE "formerNames" (
        workspace TEXT NOT NULL, "table" TEXT NOT NULL, id TEXT NOT NULL, revision INTEGER NOT NULL,
        name TEXT NOT NULL,
        PRIMARY KEY (workspace, revision, "table", id))`,
    )
    await database.query(
      `INSERT INTO "placeChanges" (workspace, id, "at", "by")
       SELECT t.workspace, t.node, t."changedAt", t."changedBy" FROM texts t
       WHERE t.version = (SELECT MAX(n.version) FROM texts n WHERE n.workspace = t.workspace AND n.node = t.node)`,
    )
    await namesOfBefore(database)
  },
}

async function namesOfBefore(database: Sequelize): Promise<void> {
  const rows = await database.query<{ workspace: string; revision: number; changes: string }>(
    'SELECT workspace, revision, changes FROM "changeSets"',
    { type: QueryTypes.SELECT },
  )
  for (const { workspace, revision, changes } of rows)
    for (const { table, id, before, after } of JSON.parse(changes) as Change[]) {
      const name = before?.name
      // Somebody who was invited goes by an address until they have a name.
      if (!name || after?.name === undefined || after.name === name) continue
      await database.query(
        'INSERT INTO "formerNames" (workspace, "table", id, revision, name) VALUES (?, ?, ?, ?, ?)',
        { replacements: [workspace, table, id, revision, name] },
      )
    }
}
