import { join } from 'node:path'
import sqlite3 from 'sqlite3'
import type { ColumnId, NodeId, WorkspaceId } from '#core/base/ids.ts'
import type {
  DocumentPlaces,
  FoundDocument,
  Indexed,
  SearchIndex,
  WaitingFile,
} from '../../search/index-port.ts'
import { type Connection, connect } from './connection.ts'
import { matchesAmong, matchesIn } from './search-matching.ts'
import { numberFrom, numbersIn, range } from './search-terms.ts'
import { write } from './search-writing.ts'

/**
 * The index in a file of its own, by SQLite's full-text search (FTS5). A document gets a new number each time that it is
 * put: what matches comes in the order of time, and since when something was changed is a number. Each workspace has a
 * range of numbers, so that what is in others costs it nothing.
 */

const version = 3

const wordTable = `content='', contentless_delete=1, detail=column, prefix='2 3 4 5', tokenize="unicode61 remove_diacritics 0"`

/** Names have a table of their own: where a name is looked for, a word that many texts have costs nothing. */
const tables = `
  CREATE TABLE made (version INTEGER NOT NULL, position INTEGER);
  INSERT INTO made VALUES (${version}, NULL);
  CREATE TABLE spaces (number INTEGER PRIMARY KEY, workspace TEXT NOT NULL UNIQUE, last INTEGER NOT NULL);
  CREATE TABLE documents (
    id INTEGER PRIMARY KEY, space INTEGER NOT NULL, node TEXT NOT NULL, part TEXT NOT NULL, source TEXT NOT NULL,
    name TEXT NOT NULL, body TEXT NOT NULL, kind TEXT NOT NULL, changedAt INTEGER NOT NULL, changedBy TEXT,
    UNIQUE (space, node, part));
  CREATE INDEX documentsByTime ON documents (space, changedAt);
  -- Behind the place the column, where a document is of one: node/column.
  CREATE TABLE places (id INTEGER PRIMARY KEY, node TEXT NOT NULL);
  CREATE TABLE waiting (space INTEGER NOT NULL, node TEXT NOT NULL, PRIMARY KEY (space, node)) WITHOUT ROWID;
  CREATE VIRTUAL TABLE names USING fts5(name, facets, ${wordTable});
  CREATE VIRTUAL TABLE texts USING fts5(body, context, facets, ${wordTable});
`

export async function openSearch(
  dataDir: string,
  { readsOnly }: { readonly readsOnly: boolean },
): Promise<SearchIndex> {
  const file = join(dataDir, 'search.sqlite')
  const writing = readsOnly ? undefined : await readyToWrite(file)
  const reading = await connect(file, sqlite3.OPEN_READONLY).catch(() => undefined)
  const read: Connection['all'] = (sql, values) => reading?.all(sql, values) ?? Promise.resolve([])
  const baseOf = async (workspace: WorkspaceId): Promise<number | undefined> => {
    const [row] = await read('SELECT number FROM spaces WHERE workspace = ?', [workspace])
    return row === undefined ? undefined : Number(row['number']) * range
  }
  return {
    position: async () => {
      const [row] = await read('SELECT position FROM made')
      return row === undefined || row['position'] === null ? undefined : Number(row['position'])
    },
    write: changes => (writing === undefined ? Promise.resolve() : write(writing, changes)),
    clear: async () => {
      for (const sql of [
        'DELETE FROM names',
        'DELETE FROM texts',
        'DELETE FROM documents',
        'DELETE FROM places',
        'DELETE FROM waiting',
        'UPDATE made SET position = NULL',
      ])
        await writing?.all(sql)
    },
    indexed: async (workspace, nodes) => {
      const base = await baseOf(workspace)
      return base === undefined ? [] : indexedIn(read, base / range, nodes)
    },
    waiting: async count =>
      (await read(
        'SELECT workspace, node FROM waiting JOIN spaces ON spaces.number = waiting.space LIMIT ?',
        [count],
      )) as unknown as WaitingFile[],
    matches: async function* (query) {
      const base = await baseOf(query.workspace)
      if (base !== undefined) yield* matchesIn(read, base, query)
    },
    matchesAmong: async (query, numbers) => {
      const base = await baseOf(query.workspace)
      return base === undefined ? new Int32Array() : matchesAmong(read, { base, query, numbers })
    },
    placesAfter: async (workspace, number) => placesAfter(read, await baseOf(workspace), number),
    documents: async (workspace, numbers) => documentsIn(read, await baseOf(workspace), numbers),
    bodies: async (workspace, numbers) => bodiesIn(read, await baseOf(workspace), numbers),
    close: async () => {
      await reading?.close()
      await writing?.close()
    },
  }
}

/** One that was made by another version is made anew. */
async function readyToWrite(file: string): Promise<Connection> {
  const connection = await connect(file, sqlite3.OPEN_READWRITE | sqlite3.OPEN_CREATE)
  await connection.all('PRAGMA journal_mode = WAL')
  // What a loss of power takes is made again: nothing is lost with it.
  await connection.all('PRAGMA synchronous = NORMAL')
  // Words of one batch lie far apart, and the same pages are read and written again by the next.
  await connection.all('PRAGMA wal_autocheckpoint = 8000')
  await connection.all('PRAGMA cache_size = -32000')
  const [row] = await connection.all('SELECT version FROM made').catch(() => [])
  if (row?.['version'] === version) return connection
  for (const name of ['made', 'spaces', 'documents', 'places', 'waiting', 'names', 'texts'])
    await connection.all(`DROP TABLE IF EXISTS ${name}`)
  await connection.run(tables)
  return connection
}

/** So many are read in one statement, before others are let in. */
const together = 5000

async function placesAfter(
  read: Connection['all'],
  base: number | undefined,
  number: number,
): Promise<DocumentPlaces> {
  if (base === undefined) return { numbers: new Int32Array(), nodes: [], columns: new Map() }
  const [row] = await read(
    `SELECT group_concat(id) AS ids, group_concat(node) AS nodes FROM (SELECT ${numberFrom('id')} AS id, node FROM places
      WHERE id > ? AND id < ? ORDER BY places.id LIMIT ?)`,
    [base, base + number, base + range, together],
  )
  const written = typeof row?.['nodes'] === 'string' ? row['nodes'].split(',') : []
  const numbers = numbersIn(row?.['ids'])
  const columns = new Map<number, ColumnId>()
  const nodes = written.map((each, at) => {
    const [node = '', column] = each.split('/')
    if (column !== undefined) columns.set(numbers[at] as number, column as ColumnId)
    return node as NodeId
  })
  return { numbers, nodes, columns }
}

async function indexedIn(
  read: Connection['all'],
  space: number,
  nodes: readonly NodeId[],
): Promise<Indexed[]> {
  const rows = await read(
    `SELECT node, part, source, name FROM documents
      WHERE space = ? AND node IN (SELECT value FROM json_each(?))`,
    [space, JSON.stringify(nodes)],
  )
  return rows as unknown as Indexed[]
}

async function documentsIn(
  read: Connection['all'],
  base: number | undefined,
  numbers: readonly number[],
): Promise<FoundDocument[]> {
  if (base === undefined) return []
  const rows = await read(
    `SELECT ${numberFrom('id')} AS number, node, part, source, name, kind, changedAt, changedBy FROM documents
      WHERE id IN (SELECT value FROM json_each(?))`,
    [base, JSON.stringify(numbers.map(each => base + each))],
  )
  return rows as unknown as FoundDocument[]
}

async function bodiesIn(
  read: Connection['all'],
  base: number | undefined,
  numbers: readonly number[],
): Promise<ReadonlyMap<number, string>> {
  if (base === undefined) return new Map()
  const rows = await read('SELECT id, body FROM documents WHERE id IN (SELECT value FROM json_each(?))', [
    JSON.stringify(numbers.map(each => base + each)),
  ])
  return new Map(rows.map(({ id, body }) => [Number(id) - base, String(body)]))
}
