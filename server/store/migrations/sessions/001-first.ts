import type { Migration } from '../list.ts'

/** As they lay before there were migrations of this database: there already, where one is older. */
const statements = [
  `CREATE TABLE IF NOT EXISTS "signIns" (
    sid TEXT PRIMARY KEY, expires TIMESTAMP, data TEXT, account TEXT, agent TEXT, "madeAt" DOUBLE PRECISION)`,
  'CREATE INDEX IF NOT EXISTS sign_ins_account ON "signIns" (account)',
  `CREATE TABLE IF NOT EXISTS seen (
    workspace TEXT NOT NULL, who TEXT NOT NULL, "at" DOUBLE PRECISION, PRIMARY KEY (workspace, who))`,
]

export const first: Migration = {
  name: '001-first',
  up: async database => {
    for (const statement of statements) await database.query(statement)
  },
}
