import type { Migration } from './list.ts'

const deferred = 'DEFERRABLE INITIALLY DEFERRED'

/*
 * The history tells the effect of each change set and which one it undoes; notices wait for whom they
 * are for; `passed` says up to when starts and ends stand in the history.
 */
const statements = [
  `ALTER TABLE "changeSets" ADD COLUMN effect TEXT NOT NULL DEFAULT '[]'`,
  'ALTER TABLE "changeSets" ADD COLUMN undoes INTEGER',
  'CREATE INDEX "changeSetsUndoing" ON "changeSets" (workspace, undoes)',
  `CREATE TABLE notices (
    workspace TEXT NOT NULL, id TEXT NOT NULL, person TEXT NOT NULL, kind TEXT NOT NULL, "at" BIGINT NOT NULL,
    data TEXT NOT NULL, "readAt" BIGINT,
    PRIMARY KEY (workspace, id), FOREIGN KEY (workspace, person) REFERENCES persons (workspace, id) ${deferred})`,
  'CREATE INDEX "noticesOfPerson" ON notices (workspace, person, id)',
  `CREATE TABLE "noticeChoices" (
    workspace TEXT NOT NULL, person TEXT NOT NULL, kind TEXT NOT NULL, choice TEXT NOT NULL,
    PRIMARY KEY (workspace, person, kind),
    FOREIGN KEY (workspace, person) REFERENCES persons (workspace, id) ${deferred})`,
  `CREATE TABLE passed (
    workspace TEXT PRIMARY KEY, "at" BIGINT NOT NULL,
    FOREIGN KEY (workspace) REFERENCES workspaces (id) ${deferred})`,
]

export const historyAndNotices: Migration = {
  name: '002-history-notices',
  up: async database => {
    for (const statement of statements) await database.query(statement)
  },
}
