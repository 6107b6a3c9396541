import { completeHistory } from './history.ts'
import type { Migration } from './list.ts'

const deferred = 'DEFERRABLE INITIALLY DEFERRED'
const toPerson = (column: string) =>
  `FOREIGN KEY (workspace, "${column}") REFERENCES persons (workspace, id) ${deferred}`

/*
 * Profiles, handles, what people are offered when they come in and how they do, requests to join, the rules of
 * a workspace about all of that, and what an account needs besides its password.
 */
const statements = [
  'ALTER TABLE persons ADD COLUMN handle TEXT',
  `ALTER TABLE persons ADD COLUMN department TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE persons ADD COLUMN country TEXT NOT NULL DEFAULT ''`,
  'ALTER TABLE persons ADD COLUMN picture TEXT',
  'ALTER TABLE persons ADD COLUMN "agreedAt" BIGINT',
  'ALTER TABLE teams ADD COLUMN picture TEXT',
  'ALTER TABLE invitations ADD COLUMN welcome TEXT',
  'ALTER TABLE workspaces ADD COLUMN picture TEXT',
  `ALTER TABLE workspaces ADD COLUMN "memberDomains" TEXT NOT NULL DEFAULT '[]'`,
  `ALTER TABLE workspaces ADD COLUMN "guestDomains" TEXT NOT NULL DEFAULT '[]'`,
  'ALTER TABLE workspaces ADD COLUMN "invitationDays" INTEGER NOT NULL DEFAULT 14',
  `ALTER TABLE workspaces ADD COLUMN "houseRules" TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE workspaces ADD COLUMN "secondFactorFor" TEXT NOT NULL DEFAULT '[]'`,
  `CREATE TABLE handles (
    workspace TEXT NOT NULL, id TEXT NOT NULL, person TEXT NOT NULL, since BIGINT NOT NULL,
    PRIMARY KEY (workspace, id), ${toPerson('person')})`,
  `CREATE TABLE "welcomeSets" (
    workspace TEXT NOT NULL, id TEXT NOT NULL, name TEXT NOT NULL, note TEXT NOT NULL, offer TEXT NOT NULL,
    PRIMARY KEY (workspace, id), FOREIGN KEY (workspace) REFERENCES workspaces (id) ${deferred})`,
  `CREATE TABLE "joinLinks" (
    workspace TEXT NOT NULL, id TEXT NOT NULL, name TEXT NOT NULL, "by" TEXT NOT NULL, "at" BIGINT NOT NULL,
    "until" BIGINT NOT NULL, domains TEXT NOT NULL, most INTEGER, used INTEGER NOT NULL, welcome TEXT,
    offer TEXT NOT NULL,
    PRIMARY KEY (workspace, id), ${toPerson('by')},
    FOREIGN KEY (workspace, welcome) REFERENCES "welcomeSets" (workspace, id) ${deferred})`,
  `CREATE TABLE requests (
    workspace TEXT NOT NULL, id TEXT NOT NULL, team TEXT NOT NULL, person TEXT NOT NULL, "at" BIGINT NOT NULL,
    word TEXT NOT NULL, declined TEXT,
    PRIMARY KEY (workspace, id), UNIQUE (workspace, team, person), ${toPerson('person')},
    FOREIGN KEY (workspace, team) REFERENCES teams (workspace, id) ${deferred})`,
  `CREATE TABLE pictures (
    workspace TEXT NOT NULL, id TEXT NOT NULL, data TEXT NOT NULL, "by" TEXT NOT NULL, "at" BIGINT NOT NULL,
    PRIMARY KEY (workspace, id), ${toPerson('by')})`,
  // What one may read of one's codes is sealed with the secret beside the database; recovery codes are hashes.
  'ALTER TABLE accounts ADD COLUMN "provenAt" BIGINT',
  'ALTER TABLE accounts ADD COLUMN "codeSecret" TEXT',
  'ALTER TABLE accounts ADD COLUMN "codeSince" BIGINT',
  'ALTER TABLE accounts ADD COLUMN "codeStep" BIGINT',
  `ALTER TABLE accounts ADD COLUMN "recoveryCodes" TEXT NOT NULL DEFAULT '[]'`,
  `ALTER TABLE accounts ADD COLUMN language TEXT NOT NULL DEFAULT 'en-GB'`,
  'ALTER TABLE accounts ADD COLUMN "timeZone" TEXT',
  // Until now nobody came in but by a mailed link.
  'UPDATE accounts SET "provenAt" = "madeAt"',
  `CREATE TABLE "accountLinks" (
    id TEXT PRIMARY KEY, account TEXT NOT NULL REFERENCES accounts (id) ${deferred}, purpose TEXT NOT NULL,
    "until" BIGINT NOT NULL)`,
]

/** What records of the history lack since then: there they have what nobody had set. */
const added: Readonly<Record<string, object>> = {
  persons: { handle: null, department: '', country: '', picture: null, agreedAt: null },
  teams: { picture: null },
  invitations: { welcome: null },
  workspaces: {
    picture: null,
    memberDomains: [],
    guestDomains: [],
    invitationDays: 14,
    houseRules: '',
    secondFactorFor: [],
  },
}

export const people: Migration = {
  name: '004-people',
  up: async database => {
    for (const statement of statements) await database.query(statement)
    await completeHistory(database, added)
  },
}
