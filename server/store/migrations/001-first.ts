import type { Migration } from './list.ts'

/*
 * Every table carries the workspace's id. References are checked at commit, so that the rows of one
 * change set can be written in any order. Types are those that SQLite and PostgreSQL share.
 */
const deferred = 'DEFERRABLE INITIALLY DEFERRED'
const toPerson = (column: string) =>
  `FOREIGN KEY (workspace, "${column}") REFERENCES persons (workspace, id) ${deferred}`
const toTeam = `FOREIGN KEY (workspace, team) REFERENCES teams (workspace, id) ${deferred}`
const toNode = (column: string) =>
  `FOREIGN KEY (workspace, "${column}") REFERENCES nodes (workspace, id) ${deferred}`
const toWorkspace = `FOREIGN KEY (workspace) REFERENCES workspaces (id) ${deferred}`

const tables = [
  `CREATE TABLE accounts (
    id TEXT PRIMARY KEY, mail TEXT NOT NULL UNIQUE, name TEXT NOT NULL,
    "passwordHash" TEXT NOT NULL, "madeAt" BIGINT NOT NULL)`,
  `CREATE TABLE workspaces (
    workspace TEXT NOT NULL, id TEXT PRIMARY KEY, name TEXT NOT NULL, slug TEXT NOT NULL UNIQUE,
    "timeZone" TEXT NOT NULL, "madeAt" BIGINT NOT NULL, "guestCeiling" INTEGER NOT NULL,
    "allowsPublishing" BOOLEAN NOT NULL, "defaultRole" TEXT NOT NULL)`,
  `CREATE TABLE levels (
    workspace TEXT NOT NULL, id TEXT NOT NULL, name TEXT NOT NULL, note TEXT NOT NULL, actions INTEGER NOT NULL,
    PRIMARY KEY (workspace, id), ${toWorkspace})`,
  `CREATE TABLE roles (
    workspace TEXT NOT NULL, id TEXT NOT NULL, name TEXT NOT NULL, note TEXT NOT NULL, rung INTEGER NOT NULL,
    privileges TEXT NOT NULL, callable BOOLEAN NOT NULL, "builtIn" BOOLEAN NOT NULL,
    PRIMARY KEY (workspace, id), ${toWorkspace})`,
  `CREATE TABLE persons (
    workspace TEXT NOT NULL, id TEXT NOT NULL, account TEXT REFERENCES accounts (id) ${deferred},
    name TEXT NOT NULL, mail TEXT NOT NULL, title TEXT NOT NULL, kind TEXT NOT NULL, status TEXT NOT NULL,
    contact TEXT, "joinedAt" BIGINT, "from" BIGINT, "until" BIGINT,
    PRIMARY KEY (workspace, id), ${toWorkspace}, ${toPerson('contact')})`,
  `CREATE TABLE holdings (
    workspace TEXT NOT NULL, id TEXT NOT NULL, person TEXT NOT NULL, role TEXT NOT NULL, scope TEXT NOT NULL,
    "from" BIGINT, "until" BIGINT,
    PRIMARY KEY (workspace, id), ${toPerson('person')},
    FOREIGN KEY (workspace, role) REFERENCES roles (workspace, id) ${deferred})`,
  `CREATE TABLE invitations (
    workspace TEXT NOT NULL, id TEXT NOT NULL, person TEXT NOT NULL, "by" TEXT NOT NULL, "at" BIGINT NOT NULL,
    "until" BIGINT NOT NULL, message TEXT NOT NULL, issue INTEGER NOT NULL,
    PRIMARY KEY (workspace, id), ${toPerson('person')}, ${toPerson('by')})`,
  `CREATE TABLE teams (
    workspace TEXT NOT NULL, id TEXT NOT NULL, name TEXT NOT NULL, note TEXT NOT NULL, joining TEXT NOT NULL,
    "welcomesGuests" BOOLEAN NOT NULL, archived BOOLEAN NOT NULL, "allowsPublishing" BOOLEAN NOT NULL,
    "madeAt" BIGINT NOT NULL,
    PRIMARY KEY (workspace, id), ${toWorkspace})`,
  `CREATE TABLE memberships (
    workspace TEXT NOT NULL, id TEXT NOT NULL, team TEXT NOT NULL, person TEXT NOT NULL, lead BOOLEAN NOT NULL,
    since BIGINT NOT NULL, "from" BIGINT, "until" BIGINT,
    PRIMARY KEY (workspace, id), UNIQUE (workspace, team, person), ${toTeam}, ${toPerson('person')})`,
  `CREATE TABLE nodes (
    workspace TEXT NOT NULL, id TEXT NOT NULL, parent TEXT, kind TEXT NOT NULL, name TEXT NOT NULL,
    note TEXT NOT NULL, maker TEXT NOT NULL, "madeAt" BIGINT NOT NULL, "order" DOUBLE PRECISION NOT NULL,
    home TEXT, broken TEXT, draft BOOLEAN NOT NULL, archived BOOLEAN NOT NULL, binned BOOLEAN NOT NULL, web TEXT,
    PRIMARY KEY (workspace, id), ${toNode('parent')}, ${toPerson('maker')})`,
  `CREATE TABLE grants (
    workspace TEXT NOT NULL, id TEXT NOT NULL, node TEXT NOT NULL, principal TEXT NOT NULL, gives TEXT NOT NULL,
    "by" TEXT NOT NULL, "at" BIGINT NOT NULL, "copiedFrom" TEXT, "from" BIGINT, "until" BIGINT,
    PRIMARY KEY (workspace, id), ${toNode('node')}, ${toPerson('by')})`,
  `CREATE TABLE limits (
    workspace TEXT NOT NULL, id TEXT NOT NULL, node TEXT NOT NULL, principal TEXT NOT NULL, allows INTEGER NOT NULL,
    "sparesStewards" BOOLEAN NOT NULL, "by" TEXT NOT NULL, "at" BIGINT NOT NULL, "from" BIGINT, "until" BIGINT,
    PRIMARY KEY (workspace, id), ${toNode('node')}, ${toPerson('by')})`,
  `CREATE TABLE texts (
    workspace TEXT NOT NULL, node TEXT NOT NULL, version INTEGER NOT NULL, text TEXT NOT NULL,
    "changedAt" BIGINT NOT NULL, "changedBy" TEXT NOT NULL,
    PRIMARY KEY (workspace, node, version), ${toNode('node')}, ${toPerson('changedBy')})`,
  `CREATE TABLE "changeSets" (
    workspace TEXT NOT NULL, revision INTEGER NOT NULL, "at" BIGINT NOT NULL, author TEXT NOT NULL,
    reason TEXT NOT NULL, edits TEXT NOT NULL, changes TEXT NOT NULL,
    PRIMARY KEY (workspace, revision), ${toWorkspace})`,
  `CREATE TABLE mails (
    workspace TEXT NOT NULL, id TEXT PRIMARY KEY, "to" TEXT NOT NULL, subject TEXT NOT NULL, text TEXT NOT NULL,
    html TEXT NOT NULL, "madeAt" BIGINT NOT NULL, "sentAt" BIGINT, tries INTEGER NOT NULL, "nextTryAt" BIGINT NOT NULL)`,
  'CREATE INDEX "mailsToSend" ON mails ("sentAt", "nextTryAt")',
]

export const first: Migration = {
  name: '001-first',
  up: async database => {
    for (const statement of tables) await database.query(statement)
  },
}
