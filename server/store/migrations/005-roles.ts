import { completeHistory } from './history.ts'
import type { Migration } from './list.ts'

const deferred = 'DEFERRABLE INITIALLY DEFERRED'
const toPerson = (column: string) =>
  `FOREIGN KEY (workspace, "${column}") REFERENCES persons (workspace, id) ${deferred}`

/*
 * Who made a role, which seats are planned, what is asked for about roles, ownership that is offered, and what was
 * looked at by a privilege. Who made the roles of older files is not told: their history has it.
 */
const statements = [
  'ALTER TABLE roles ADD COLUMN "madeAt" BIGINT',
  'ALTER TABLE roles ADD COLUMN "madeBy" TEXT',
  'ALTER TABLE workspaces ADD COLUMN "seatsNext" TEXT',
  'ALTER TABLE teams ADD COLUMN "archivedAt" BIGINT',
  // For what is archived already the thirty days begin now.
  `UPDATE teams SET "archivedAt" = CAST(strftime('%s', 'now') AS INTEGER) * 1000 WHERE archived`,
  `CREATE TABLE "roleRequests" (
    workspace TEXT NOT NULL, id TEXT NOT NULL, person TEXT NOT NULL, wants TEXT NOT NULL, "at" BIGINT NOT NULL,
    word TEXT NOT NULL, declined TEXT,
    PRIMARY KEY (workspace, id), ${toPerson('person')})`,
  `CREATE TABLE handovers (
    workspace TEXT NOT NULL, id TEXT NOT NULL, "from" TEXT NOT NULL, "to" TEXT NOT NULL, "at" BIGINT NOT NULL,
    word TEXT NOT NULL, keeps TEXT NOT NULL,
    PRIMARY KEY (workspace, id), UNIQUE (workspace, "from"), ${toPerson('from')}, ${toPerson('to')},
    FOREIGN KEY (workspace, keeps) REFERENCES roles (workspace, id) ${deferred})`,
  `CREATE TABLE looks (
    workspace TEXT NOT NULL, id TEXT NOT NULL, "by" TEXT NOT NULL, through TEXT, "at" BIGINT NOT NULL,
    "until" BIGINT NOT NULL, word TEXT NOT NULL,
    PRIMARY KEY (workspace, id), ${toPerson('by')}, ${toPerson('through')})`,
]

/** What records of the history lack since then. */
const added = {
  roles: { madeAt: null, madeBy: null },
  workspaces: { seatsNext: null },
  teams: { archivedAt: null },
}

export const roles: Migration = {
  name: '005-roles',
  up: async database => {
    for (const statement of statements) await database.query(statement)
    await completeHistory(database, added)
  },
}
