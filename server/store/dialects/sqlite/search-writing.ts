import { fold } from '#core/base/fold-words.ts'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { IndexChanges, SearchDocument, WaitingFile } from '../../search/index-port.ts'
import type { Connection } from './connection.ts'
import { anyFacet, kindFacet, nameFacet, personFacet, range } from './search-terms.ts'

/** In one transaction. */
export async function write(connection: Connection, changes: IndexChanges): Promise<void> {
  await connection.all('BEGIN IMMEDIATE')
  try {
    await writeIn(connection, changes)
    await connection.all('COMMIT')
  } catch (error) {
    await connection.all('ROLLBACK')
    throw error
  }
}

/** A statement for all of them: a row of their list each. */
const each = 'FROM json_each(?)'
const field = (name: string): string => `value ->> '${name}'`

interface Written {
  readonly into: string
  readonly fields: readonly (keyof Row)[]
  readonly has: (row: Row) => boolean
}

const written: readonly Written[] = [
  {
    into: 'documents',
    fields: ['id', 'space', 'node', 'part', 'source', 'name', 'body', 'kind', 'changedAt', 'changedBy'],
    has: () => true,
  },
  { into: 'places', fields: ['id', 'place'], has: () => true },
  {
    into: 'names (rowid, name, facets)',
    fields: ['id', 'folded', 'facets'],
    has: ({ part }) => part === 'place',
  },
  {
    into: 'texts (rowid, body, context, facets)',
    fields: ['id', 'foldedBody', 'folded', 'facets'],
    has: ({ body }) => body !== '',
  },
]

async function writeIn(
  { all }: Connection,
  { puts, drops, waiting, read, position }: IndexChanges,
): Promise<void> {
  const spaces = new Map<WorkspaceId, Space>()
  for (const { workspace } of [...puts, ...drops, ...waiting, ...read])
    if (!spaces.has(workspace)) spaces.set(workspace, await spaceIn(all, workspace))
  const spaceOf = ({ workspace }: { readonly workspace: WorkspaceId }): Space =>
    spaces.get(workspace) as Space
  const addressed = (rows: readonly Addressed[]) =>
    JSON.stringify(rows.map(row => ({ space: spaceOf(row).number, node: row.node, part: row.part ?? '' })))
  const gone = await all(
    `DELETE FROM documents WHERE id IN (SELECT documents.id ${each} JOIN documents ON space = ${field('space')}
      AND node = ${field('node')} AND part = ${field('part')}) RETURNING id`,
    [addressed([...puts, ...drops])],
  )
  for (const [table, id] of [
    ['names', 'rowid'],
    ['texts', 'rowid'],
    ['places', 'id'],
  ] as const)
    await all(`DELETE FROM ${table} WHERE ${id} IN (SELECT value ${each})`, [
      JSON.stringify(gone.map(row => row['id'])),
    ])
  const rows = puts.map(document => rowOf(spaceOf(document), document))
  for (const { into, fields, has } of written)
    await all(`INSERT INTO ${into} SELECT ${fields.map(field).join(', ')} ${each}`, [
      // Of each row what goes there: a text is long, and would be read for each of its other fields.
      JSON.stringify(rows.filter(has).map(row => Object.fromEntries(fields.map(name => [name, row[name]])))),
    ])
  const address = `${field('space')}, ${field('node')}`
  await all(`INSERT OR REPLACE INTO waiting SELECT ${address} ${each}`, [addressed(waiting)])
  await all(`DELETE FROM waiting WHERE (space, node) IN (SELECT ${address} ${each})`, [addressed(read)])
  for (const { number, last } of spaces.values())
    await all('UPDATE spaces SET last = ? WHERE number = ?', [last, number])
  if (position !== undefined) await all('UPDATE made SET position = ?', [position])
}

type Addressed = WaitingFile & Partial<Pick<SearchDocument, 'part'>>

interface Space {
  readonly number: number
  last: number
}

async function spaceIn(all: Connection['all'], workspace: WorkspaceId): Promise<Space> {
  await all('INSERT OR IGNORE INTO spaces (workspace, last) VALUES (?, 0)', [workspace])
  const [row] = await all('SELECT number, last FROM spaces WHERE workspace = ?', [workspace])
  return { number: Number(row?.['number']), last: Number(row?.['last']) }
}

interface Row extends SearchDocument {
  readonly id: number
  readonly space: number
  readonly folded: string
  readonly foldedBody: string
  readonly facets: string
  readonly place: string
}

/** A document under its new number, with the words by which it is found. */
function rowOf(space: Space, document: SearchDocument): Row {
  const { part, name, body, kind, changedBy } = document
  space.last += 1
  const facets = [
    anyFacet,
    kindFacet(kind),
    ...(changedBy === null ? [] : [personFacet(changedBy)]),
    ...(part === 'place' ? [nameFacet(name)] : []),
  ]
  return {
    ...document,
    id: space.number * range + space.last,
    space: space.number,
    folded: fold(name),
    foldedBody: fold(body),
    facets: facets.join(' '),
    place: part.startsWith('column:') ? `${document.node}/${part.slice('column:'.length)}` : document.node,
  }
}
