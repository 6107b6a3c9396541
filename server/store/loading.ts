import { QueryTypes, type Transaction } from 'sequelize'
import { none } from '#core/base/vector.ts'
import type { WorkspaceId } from '#core/base/ids.ts'
import { type Lines, numbersOf, packIds } from '#core/base/packed-ids.ts'
import { buildIndex } from '#core/index/build.ts'
import type { Grant, Limit } from '#core/rules/access-entry.ts'
import type { Principal } from '#core/rules/principal.ts'
import type { Rows, TableName } from '#core/state/kinds.ts'
import { type State } from '#core/state/state.ts'
import { type HeldRows, type PackedTable, packedTables, stateFrom } from '#core/state/loaded-state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { type Fields, jsonOf, readerOf } from './fields.ts'
import { packedEntries, type PackedEntries, type StoredEntries } from './packed-entries.ts'
import { packedNodes, plainFields } from './packed-nodes.ts'
import type { Tables } from './tables.ts'

/** What is told while a workspace is read. */
export type Said = (line: string) => void

interface Loading {
  readonly workspace: WorkspaceId
  readonly revision: number
  readonly said: Said
}

/**
 * Reads a workspace. A million rows as rows would take half a minute: SQL packs each table into a few values, and
 * places, grants and limits are not parsed before they are asked for. Two threads read the file, and what is there
 * already is worked on meanwhile.
 */
export async function loadState(tables: Tables, { workspace, revision, said }: Loading): Promise<State> {
  const reading = { tables, workspace }
  const outlining = outlineOf(reading)
  const beside = await besideOf(reading)
  const outline = await outlining
  const holding = heldJson(reading)
  const ids = packIds(outline.ids)
  const parents = numbersOf(ids, { lines: outline.parents, count: ids.count }, none)
  said(`${ids.count} places`)
  const grants = packedEntries('grants', ids, await beside.grants)
  const limits = packedEntries('limits', ids, await beside.limits)
  said(`${grants.columns.count} grants, ${limits.columns.count} limits`)
  const rows = heldRows(tables, await holding)
  said(`${rows.persons.length} people in ${rows.teams.length} teams`)
  const { special } = outline
  const index = buildIndex({
    ...rows,
    workspace: rows.workspaces[0] as Rows['workspaces'],
    nodes: ids,
    parents,
    special,
    entries: [grants.columns, limits.columns],
  })
  said(`access at ${index.freeSegments.length} places that have something of their own`)
  const lines = await beside.lines
  const nodes = packedNodes({ ids, root: parents.indexOf(none), tree: index.tree, special, lines })
  return stateFrom({
    kinds: tables.kinds,
    revision,
    rows,
    bases: { nodes, grants: grants.base, limits: limits.base },
    dated: { nodes: special, grants: datedIn(grants), limits: datedIn(limits) },
    index,
  })
}

/** What is read by a second connection, which a transaction has for itself. */
async function besideOf(reading: Reading) {
  const transaction = await reading.tables.database.transaction()
  const own = { ...reading, transaction }
  const grants = storedEntries(own, 'grants')
  const limits = grants.then(() => storedEntries(own, 'limits'))
  const lines = limits.then(() => plainLines(own))
  const done = lines.finally(() => transaction.commit())
  return { grants, limits, lines: done }
}

function datedIn<T extends 'grants' | 'limits'>({ base, columns }: PackedEntries<T>): Rows[T][] {
  const dated: Rows[T][] = []
  for (let entry = 0; entry < columns.count; entry += 1) {
    const { from, until } = columns.said(entry)
    if (from !== null || until !== null) dated.push(base.at(entry))
  }
  return dated
}

interface Reading {
  readonly tables: Tables
  readonly workspace: WorkspaceId
  readonly transaction?: Transaction
}

interface Selection {
  readonly from: TableName
  /** Behind the name: the index that the rows are to come in the order of. */
  readonly by?: string
  readonly what: string
  readonly where?: string
}

/** The key of the table: what is read by it twice comes in the same order twice. */
const byId = 'INDEXED BY sqlite_autoindex_nodes_1'

/** One row that is made of all rows of a table. */
async function selected<Row extends object>(
  { tables, workspace, transaction }: Reading,
  { from, by = '', what, where = 'TRUE' }: Selection,
): Promise<Row> {
  const [row] = await tables.database.query<Row>(
    `SELECT ${what} FROM "${from}" ${by} WHERE workspace = $workspace AND (${where})`,
    { type: QueryTypes.SELECT, bind: { workspace }, transaction: transaction ?? null },
  )
  return row as Row
}

/** Each value as a line; nothing where there is no row. */
const asLines = (value: string) =>
  `coalesce(CAST(group_concat(${value} || char(10), '') AS BLOB), zeroblob(0))`
const asArray = (value: string) => `json_group_array(${value})`

const idsAsLines = `${asLines('id')} AS lines, count(*) AS count`

interface Outline {
  readonly ids: Lines
  readonly parents: Buffer
  readonly special: readonly ContentNode[]
}

/** As the index of the table says it (migration 007). */
const isSpecial = `note <> '' OR home IS NOT NULL OR broken IS NOT NULL OR draft OR archived
  OR binned IS NOT NULL OR web IS NOT NULL`

/** What access hangs on of places. */
async function outlineOf(reading: Reading): Promise<Outline> {
  const { fields } = reading.tables.kinds.nodes
  const parents = `${asLines("coalesce(parent, '')")} AS parents`
  const ids = await selected<Lines & { parents: Buffer }>(reading, {
    from: 'nodes',
    by: byId,
    what: `${idsAsLines}, ${parents}`,
  })
  const { special } = await selected<{ special: string }>(reading, {
    from: 'nodes',
    what: `${asArray(jsonOf(fields))} AS special`,
    where: isSpecial,
  })
  return { ids, parents: ids.parents, special: recordsIn(fields, special) }
}

/** What else there is to say of places, in the order in which they were outlined. */
async function plainLines(reading: Reading): Promise<Buffer> {
  const what = `${asLines(jsonOf(reading.tables.kinds.nodes.fields, plainFields))} AS lines`
  return (await selected<{ lines: Buffer }>(reading, { from: 'nodes', by: byId, what })).lines
}

/** What the index reads of an entry, besides where it lies and of whom it speaks. */
const saidFields = {
  grants: ['gives', 'from', 'until'],
  limits: ['allows', 'sparesStewards', 'from', 'until'],
} as const

type EntryTable = keyof typeof saidFields

async function storedEntries(reading: Reading, table: EntryTable): Promise<StoredEntries> {
  const names = saidFields[table]
  const { fields } = reading.tables.kinds[table]
  const found = await selected<StoredRows>(reading, {
    from: table,
    what: `${idsAsLines}, ${asLines('node')} AS places, ${asArray('principal')} AS principals,
      ${asArray(jsonOf(fields, names))} AS said, ${asLines(jsonOf(fields))} AS records`,
  })
  const said = JSON.parse(found.said) as unknown[][]
  const read = readerOf<Partial<Grant & Limit>>(fields, names) as (
    values: readonly unknown[],
  ) => ReturnType<StoredEntries['said']>
  return {
    ids: found,
    places: found.places,
    principals: JSON.parse(found.principals) as Principal[],
    said: entry => read(said[entry] as unknown[]),
    lines: found.records,
  }
}

interface StoredRows extends Lines {
  readonly places: Buffer
  readonly principals: string
  readonly said: string
  readonly records: Buffer
}

type Held = keyof HeldRows

/** All other records, table by table in JSON. */
async function heldJson(reading: Reading): Promise<Readonly<Record<Held, string>>> {
  const found: [string, string][] = []
  const { kinds } = reading.tables
  for (const table of Object.keys(kinds) as TableName[])
    if (!packedTables.includes(table as PackedTable)) {
      const what = `${asArray(jsonOf(kinds[table].fields))} AS records`
      const { records } = await selected<{ records: string }>(reading, { from: table, what })
      found.push([table, records])
    }
  return Object.fromEntries(found) as Record<Held, string>
}

const heldRows = ({ kinds }: Tables, json: Readonly<Record<Held, string>>): HeldRows =>
  Object.fromEntries(
    Object.entries(json).map(([table, records]) => [table, recordsIn(kinds[table as Held].fields, records)]),
  ) as unknown as HeldRows

const recordsIn = <Row>(fields: Fields, json: string): Row[] =>
  (JSON.parse(json) as unknown[][]).map(readerOf<Row>(fields))
