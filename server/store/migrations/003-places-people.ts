import type { Migration } from './list.ts'

const deferred = 'DEFERRABLE INITIALLY DEFERRED'

/*
 * What is in the bin says since when, by whom; for what lay there already the thirty days begin now. The
 * history keeps records as JSON: there, what was in the bin gets a time of 0, which nothing counts from.
 * New are seats, who keeps and who writes in teams, restricted columns, and channels.
 */
const statements = [
  'ALTER TABLE nodes RENAME COLUMN binned TO "wasBinned"',
  'ALTER TABLE nodes ADD COLUMN binned TEXT',
  `UPDATE nodes SET binned = '{"by":"' || maker || '","at":' || (CAST(strftime('%s', 'now') AS INTEGER) * 1000) || '}'
    WHERE "wasBinned"`,
  'ALTER TABLE nodes DROP COLUMN "wasBinned"',
  `UPDATE "changeSets" SET changes = replace(replace(changes, '"binned":false', '"binned":null'),
    '"binned":true', '"binned":{"by":"","at":0}')`,
  'ALTER TABLE workspaces ADD COLUMN seats INTEGER',
  'ALTER TABLE workspaces ADD COLUMN "suspendedHoldSeats" BOOLEAN NOT NULL DEFAULT TRUE',
  'ALTER TABLE roles ADD COLUMN free BOOLEAN NOT NULL DEFAULT FALSE',
  `ALTER TABLE teams ADD COLUMN posting TEXT NOT NULL DEFAULT 'everyone'`,
  `ALTER TABLE teams ADD COLUMN addressing TEXT NOT NULL DEFAULT 'leads'`,
  'ALTER TABLE teams ADD COLUMN "keptByDirectory" BOOLEAN NOT NULL DEFAULT FALSE',
  `CREATE TABLE channels (
    workspace TEXT NOT NULL, id TEXT NOT NULL, team TEXT NOT NULL, name TEXT NOT NULL, note TEXT NOT NULL,
    "only" TEXT, archived BOOLEAN NOT NULL,
    PRIMARY KEY (workspace, id), FOREIGN KEY (workspace, team) REFERENCES teams (workspace, id) ${deferred})`,
  `CREATE TABLE columns (
    workspace TEXT NOT NULL, id TEXT NOT NULL, board TEXT NOT NULL, name TEXT NOT NULL,
    "order" DOUBLE PRECISION NOT NULL, viewers TEXT, editors TEXT,
    PRIMARY KEY (workspace, id), FOREIGN KEY (workspace, board) REFERENCES nodes (workspace, id) ${deferred})`,
]

export const placesAndPeople: Migration = {
  name: '003-places-people',
  up: async database => {
    for (const statement of statements) await database.query(statement)
  },
}
