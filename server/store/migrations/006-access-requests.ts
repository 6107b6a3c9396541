import type { Migration } from './list.ts'

const deferred = 'DEFERRABLE INITIALLY DEFERRED'
const toPerson = `FOREIGN KEY (workspace, person) REFERENCES persons (workspace, id) ${deferred}`

/*
 * What is asked for at places, who wants to be told of changes there, and change sets that are kept for later. A
 * request names its place by its address, whether or not there is anything: so nothing ties it to one.
 */
const statements = [
  `CREATE TABLE "accessRequests" (
    workspace TEXT NOT NULL, id TEXT NOT NULL, person TEXT NOT NULL, node TEXT NOT NULL, wants INTEGER NOT NULL,
    "at" BIGINT NOT NULL, word TEXT NOT NULL, declined TEXT,
    PRIMARY KEY (workspace, id), ${toPerson})`,
  `CREATE TABLE watches (
    workspace TEXT NOT NULL, id TEXT NOT NULL, person TEXT NOT NULL, node TEXT NOT NULL,
    PRIMARY KEY (workspace, id), ${toPerson},
    FOREIGN KEY (workspace, node) REFERENCES nodes (workspace, id) ${deferred})`,
  `CREATE TABLE drafts (
    workspace TEXT NOT NULL, id TEXT NOT NULL, person TEXT NOT NULL, name TEXT NOT NULL, word TEXT NOT NULL,
    items TEXT NOT NULL, "from" TEXT, "madeAt" BIGINT NOT NULL, "changedAt" BIGINT NOT NULL,
    PRIMARY KEY (workspace, id), ${toPerson})`,
  'CREATE INDEX drafts_person ON drafts (workspace, person)',
]

export const accessRequests: Migration = {
  name: '006-access-requests',
  up: async database => {
    for (const statement of statements) await database.query(statement)
  },
}
