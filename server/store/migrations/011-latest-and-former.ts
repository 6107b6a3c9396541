import { QueryTypes, type Sequelize } from 'sequelize'
import type { Migration } from './list.ts'

interface Change {
  readonly table: string
  readonly id: string
  readonly before: { readonly name?: string } | null
  readonly after: { readonly name?: string } | null
}

/**
 * Who changed each place last, what things were called before, and who invited whom: all follow from the history, and
 * lie beside it to be found without reading all of it.
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
    await database.query('ALTER TABLE persons ADD COLUMN "invitedBy" TEXT')
    await readHistory(database)
  },
}

/** Former names, and who invited whom, as the history tells them; its own records of people get the new field too. */
async function readHistory(database: Sequelize): Promise<void> {
  const rows = await database.query<Row>(
    'SELECT workspace, revision, author, changes FROM "changeSets" ORDER BY workspace, revision',
    { type: QueryTypes.SELECT },
  )
  const inviters = new Map<string, string | null>()
  for (const row of rows) {
    const changes = JSON.parse(row.changes) as Change[]
    for (const change of changes) await noteName(database, row, change)
    if (!changes.some(each => each.table === 'persons')) continue
    const invitedBy = ({ table, id, before }: Change): string | null => {
      if (table !== 'persons') return null
      const key = `${row.workspace} ${id}`
      if (before === null) inviters.set(key, row.author === id ? null : row.author)
      return inviters.get(key) ?? null
    }
    const complete = changes.map(change => withInviter(change, invitedBy(change)))
    await database.query('UPDATE "changeSets" SET changes = ? WHERE workspace = ? AND revision = ?', {
      replacements: [JSON.stringify(complete), row.workspace, row.revision],
    })
  }
  for (const [key, inviter] of inviters)
    await database.query('UPDATE persons SET "invitedBy" = ? WHERE workspace = ? AND id = ?', {
      replacements: [inviter, ...key.split(' ')],
    })
}

interface Row {
  readonly workspace: string
  readonly revision: number
  readonly author: string
  readonly changes: string
}

function withInviter({ before, after, ...change }: Change, invitedBy: string | null): Change {
  if (change.table !== 'persons') return { ...change, before, after }
  const complete = (row: Change['before']) => (row === null ? null : { ...row, invitedBy })
  return { ...change, before: complete(before), after: complete(after) }
}

async function noteName(
  database: Sequelize,
  { workspace, revision }: Row,
  { table, id, before, after }: Change,
): Promise<void> {
  const name = before?.name
  // Somebody who was invited goes by an address until they have a name.
  if (!name || after?.name === undefined || after.name === name) return
  await database.query(
    'INSERT INTO "formerNames" (workspace, "table", id, revision, name) VALUES (?, ?, ?, ?, ?)',
    { replacements: [workspace, table, id, revision, name] },
  )
}
