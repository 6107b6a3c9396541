import { QueryTypes, type Sequelize } from 'sequelize'
import { rewriteHistory } from './history.ts'
import type { Migration } from './list.ts'

/**
 * Boards: kinds of columns, sections and views; what stands in cells and how it came so; comments; and what is only one
 * person's. Rows that are there get their numbers in the order in which they were made.
 */
const deferred = 'DEFERRABLE INITIALLY DEFERRED'

const ofNode = `FOREIGN KEY (workspace, node) REFERENCES nodes (workspace, id) ${deferred}`
const partOfBoard = (table: string, more = '') => `CREATE TABLE "${table}" (
    workspace TEXT NOT NULL REFERENCES workspaces (id) ${deferred},
    id TEXT NOT NULL,
    board TEXT NOT NULL,
    name TEXT NOT NULL,
    "order" DOUBLE PRECISION NOT NULL,${more}
    PRIMARY KEY (workspace, id),
    FOREIGN KEY (workspace, board) REFERENCES nodes (workspace, id) ${deferred})`

const statements = [
  'ALTER TABLE nodes ADD COLUMN section TEXT',
  'ALTER TABLE nodes ADD COLUMN serial BIGINT',
  `ALTER TABLE columns ADD COLUMN kind TEXT NOT NULL DEFAULT 'text'`,
  `ALTER TABLE columns ADD COLUMN settings TEXT NOT NULL DEFAULT '{}'`,
  `ALTER TABLE columns ADD COLUMN former TEXT NOT NULL DEFAULT '[]'`,
  partOfBoard('sections'),
  'CREATE INDEX "sectionsBoard" ON sections (workspace, board)',
  partOfBoard('boardViews', ' state TEXT NOT NULL,'),
  'CREATE INDEX "boardViewsBoard" ON "boardViews" (workspace, board)',
  // What stands in the cells of a row, as JSON by column, and how often it was written.
  `CREATE TABLE "rowCells" (
    workspace TEXT NOT NULL,
    node TEXT NOT NULL,
    version BIGINT NOT NULL,
    cells TEXT NOT NULL,
    PRIMARY KEY (workspace, node),
    ${ofNode})`,
  `CREATE TABLE "cellChanges" (
    workspace TEXT NOT NULL,
    node TEXT NOT NULL,
    version BIGINT NOT NULL,
    "at" BIGINT NOT NULL,
    "by" TEXT NOT NULL,
    changes TEXT NOT NULL,
    PRIMARY KEY (workspace, node, version),
    ${ofNode})`,
  // Since when a column is no more: its cells are kept for thirty days.
  `CREATE TABLE "goneColumns" (
    workspace TEXT NOT NULL REFERENCES workspaces (id) ${deferred},
    id TEXT NOT NULL,
    board TEXT NOT NULL,
    "at" BIGINT NOT NULL,
    PRIMARY KEY (workspace, id))`,
  `CREATE TABLE comments (
    workspace TEXT NOT NULL,
    id TEXT NOT NULL,
    node TEXT NOT NULL,
    thread TEXT NOT NULL,
    text TEXT NOT NULL,
    "madeAt" BIGINT NOT NULL,
    "madeBy" TEXT NOT NULL,
    "editedAt" BIGINT,
    "resolvedAt" BIGINT,
    "resolvedBy" TEXT,
    "removedAt" BIGINT,
    "removedBy" TEXT,
    PRIMARY KEY (workspace, id),
    ${ofNode})`,
  'CREATE INDEX "commentsNode" ON comments (workspace, node, id)',
  // What is one person's own: views, and widths and order of columns.
  `CREATE TABLE "ownViews" (
    workspace TEXT NOT NULL REFERENCES workspaces (id) ${deferred},
    id TEXT NOT NULL,
    person TEXT NOT NULL,
    board TEXT NOT NULL,
    name TEXT NOT NULL,
    state TEXT NOT NULL,
    PRIMARY KEY (workspace, id))`,
  'CREATE INDEX "ownViewsPerson" ON "ownViews" (workspace, person, board)',
  `CREATE TABLE "ownColumns" (
    workspace TEXT NOT NULL REFERENCES workspaces (id) ${deferred},
    person TEXT NOT NULL,
    board TEXT NOT NULL,
    columns TEXT NOT NULL,
    PRIMARY KEY (workspace, person, board))`,
  // Who writes in which cell right now.
  `CREATE TABLE "cellsBeingEdited" (
    workspace TEXT NOT NULL REFERENCES workspaces (id) ${deferred},
    board TEXT NOT NULL,
    person TEXT NOT NULL,
    node TEXT NOT NULL,
    "column" TEXT NOT NULL,
    "until" BIGINT NOT NULL,
    PRIMARY KEY (workspace, board, person))`,
  `UPDATE nodes SET serial = (
    SELECT count(*) FROM nodes AS other
    WHERE other.workspace = nodes.workspace AND other.parent = nodes.parent AND other.kind = 'row'
      AND (other."madeAt" < nodes."madeAt" OR (other."madeAt" = nodes."madeAt" AND other.id <= nodes.id))
  ) WHERE kind = 'row'`,
  `UPDATE nodes SET serial = (
    SELECT count(*) FROM nodes AS row
    WHERE row.workspace = nodes.workspace AND row.parent = nodes.id AND row.kind = 'row'
  ) WHERE kind = 'board'`,
]

export const boards: Migration = {
  name: '017-boards',
  up: async database => {
    for (const statement of statements) await database.query(statement)
    await completeKept(database)
  },
}

interface Numbered {
  readonly workspace: string
  readonly id: string
  readonly serial: number | string
}

/** The history says of rows and boards what they say of themselves, so that what it did can be undone. */
async function completeKept(database: Sequelize): Promise<void> {
  const rows = await database.query<Numbered>(
    'SELECT workspace, id, serial FROM nodes WHERE serial IS NOT NULL',
    { type: QueryTypes.SELECT },
  )
  const serials = new Map(rows.map(({ id, serial }) => [id, Number(serial)]))
  const node = (row: object | null) =>
    row === null ? null : { ...row, section: null, serial: serials.get((row as { id: string }).id) ?? null }
  const column = (row: object | null) =>
    row === null ? null : { ...row, kind: 'text', settings: {}, former: [] }
  await rewriteHistory(database, {
    change: each => {
      const complete = { nodes: node, columns: column }[each.table]
      if (complete === undefined) return each
      return { ...each, before: complete(each.before), after: complete(each.after) }
    },
  })
}
