import { completeHistory } from './history.ts'
import type { Migration } from './list.ts'

/**
 * Files: bytes that lie beside the database (each content once a workspace, by its hash), which version of which file they are, what is
 * still on its way, and what a workspace allows.
 */
const deferred = 'DEFERRABLE INITIALLY DEFERRED'

const statements = [
  'ALTER TABLE workspaces ADD COLUMN "largestFile" BIGINT NOT NULL DEFAULT 5368709120',
  'ALTER TABLE workspaces ADD COLUMN "storageQuota" BIGINT',
  'ALTER TABLE workspaces ADD COLUMN "versionsKept" BIGINT NOT NULL DEFAULT 20',
  'ALTER TABLE workspaces ADD COLUMN "marksPreviews" BOOLEAN NOT NULL DEFAULT false',
  `CREATE TABLE blobs (
    workspace TEXT NOT NULL REFERENCES workspaces (id) ${deferred},
    hash TEXT NOT NULL,
    name TEXT NOT NULL,
    size BIGINT NOT NULL,
    kind TEXT NOT NULL,
    "madeAt" BIGINT NOT NULL,
    PRIMARY KEY (workspace, hash))`,
  `CREATE TABLE "fileVersions" (
    workspace TEXT NOT NULL,
    node TEXT NOT NULL,
    version BIGINT NOT NULL,
    hash TEXT NOT NULL,
    size BIGINT NOT NULL,
    kind TEXT NOT NULL,
    "restoredFrom" BIGINT,
    "changedAt" BIGINT NOT NULL,
    "changedBy" TEXT NOT NULL,
    PRIMARY KEY (workspace, node, version),
    FOREIGN KEY (workspace, node) REFERENCES nodes (workspace, id) ${deferred},
    FOREIGN KEY (workspace, hash) REFERENCES blobs (workspace, hash) ${deferred})`,
  'CREATE INDEX "fileVersionsHash" ON "fileVersions" (workspace, hash)',
  // When somebody last looked at a file or took it: to a day.
  `CREATE TABLE "fileOpens" (
    workspace TEXT NOT NULL,
    id TEXT NOT NULL,
    "at" BIGINT NOT NULL,
    PRIMARY KEY (workspace, id),
    FOREIGN KEY (workspace, id) REFERENCES nodes (workspace, id) ON DELETE CASCADE ${deferred})`,
  // No key to its place: what is on its way into one does not keep it from being deleted.
  `CREATE TABLE uploads (
    workspace TEXT NOT NULL REFERENCES workspaces (id) ${deferred},
    id TEXT NOT NULL,
    person TEXT NOT NULL,
    place TEXT NOT NULL,
    "isVersion" BOOLEAN NOT NULL,
    name TEXT NOT NULL,
    size BIGINT NOT NULL,
    received BIGINT NOT NULL,
    parts TEXT NOT NULL,
    "madeAt" BIGINT NOT NULL,
    "changedAt" BIGINT NOT NULL,
    PRIMARY KEY (workspace, id))`,
]

export const files: Migration = {
  name: '016-files',
  up: async database => {
    for (const statement of statements) await database.query(statement)
    await completeHistory(database, {
      workspaces: {
        largestFile: 5 * 1024 ** 3,
        storageQuota: null,
        versionsKept: 20,
        marksPreviews: false,
      },
    })
  },
}
