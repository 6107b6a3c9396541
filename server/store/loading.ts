import type { Transaction } from 'sequelize'
import { none } from '#core/base/vector.ts'
import type { WorkspaceId } from '#core/base/ids.ts'
import { numbersOf, packIds } from '#core/base/packed-ids.ts'
import { buildIndex } from '#core/index/build.ts'
import type { Grant, Limit } from '#core/rules/access-entry.ts'
import type { Principal } from '#core/rules/principal.ts'
import type { Rows, TableName } from '#core/state/kinds.ts'
import { type State } from '#core/state/state.ts'
import { type HeldRows, type PackedTable, packedTables, stateFrom } from '#core/state/loaded-state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { dialect } from './database.ts'
import type { PackedReader } from './dialects/dialect.ts'
import { type Fields, readerOf } from './fields.ts'
import { packedEntries, type PackedEntries, type StoredEntries } from './packed-entries.ts'
import { packedNodes, plainFields } from './packed-nodes.ts'
import type { Tables } from './tables.ts'

/** What is told while a workspace is read. */
export type OnProgress = (line: string) => void

/**
 * Reads a workspace as it is at one revision, though others write meanwhile. Places, grants and limits come packed, and
 * are not parsed before they are asked for. Two threads read the file, and what is there already is worked on meanwhile.
 */
export async function loadState(
  tables: Tables,
  workspace: WorkspaceId,
  onProgress: OnProgress = () => {},
): Promise<State> {
  const views = await alikeViews(tables, workspace)
  const [front, beside] = views.transactions.map(transaction =>
    dialect.packed({ database: tables.database, kinds: tables.kinds, workspace, transaction }),
  ) as [PackedReader, PackedReader]
  try {
    return await stateIn(tables, { revision: views.revision, front, beside, onProgress })
  } finally {
    await Promise.all(views.transactions.map(each => each.commit()))
  }
}

/** Two views of the same revision: between the first looks of both somebody may write. */
async function alikeViews(tables: Tables, workspace: WorkspaceId) {
  for (;;) {
    const transactions = [await dialect.read(tables.database), await dialect.read(tables.database)]
    const revisions = await Promise.all(transactions.map(each => revisionIn(tables, workspace, each)))
    if (revisions[0] === revisions[1]) return { transactions, revision: revisions[0] as number }
    await Promise.all(transactions.map(each => each.commit()))
  }
}

const revisionIn = async ({ changeSets }: Tables, workspace: WorkspaceId, transaction: Transaction) =>
  Number((await changeSets.max('revision', { where: { workspace }, transaction })) ?? 0)

interface Readers {
  readonly revision: number
  readonly front: PackedReader
  readonly beside: PackedReader
  readonly onProgress: OnProgress
}

async function stateIn(tables: Tables, { revision, front, beside, onProgress }: Readers): Promise<State> {
  const { kinds } = tables
  const outlining = front.outline()
  const entries = besideOf(tables, beside)
  const outline = await outlining
  const holding = heldJson(tables, front)
  const ids = packIds(outline.ids)
  const parents = numbersOf(ids, { lines: outline.parents, count: ids.count }, none)
  onProgress(`${ids.count} places`)
  const grants = packedEntries('grants', ids, await entries.grants)
  const limits = packedEntries('limits', ids, await entries.limits)
  onProgress(`${grants.columns.count} grants, ${limits.columns.count} limits`)
  const rows = heldRows(tables, await holding)
  onProgress(`${rows.persons.length} people in ${rows.teams.length} teams`)
  const special = recordsIn<ContentNode>(kinds.nodes.fields, outline.special)
  const index = buildIndex({
    ...rows,
    workspace: rows.workspaces[0] as Rows['workspaces'],
    nodes: ids,
    parents,
    special,
    entries: [grants.columns, limits.columns],
  })
  onProgress(`access at ${index.freeSegments.length} places that have something of their own`)
  const lines = await entries.lines
  const nodes = packedNodes({ ids, root: parents.indexOf(none), tree: index.tree, special, lines })
  return stateFrom({
    kinds,
    revision,
    rows,
    bases: { nodes, grants: grants.base, limits: limits.base },
    dated: { nodes: special, grants: datedIn(grants), limits: datedIn(limits) },
    index,
  })
}

/** What is read beside, one after another. */
function besideOf(tables: Tables, reader: PackedReader) {
  const grants = storedEntries(tables, reader, 'grants')
  const limits = grants.then(() => storedEntries(tables, reader, 'limits'))
  const lines = limits.then(() => reader.lines(plainFields))
  return { grants, limits, lines }
}

function datedIn<T extends 'grants' | 'limits'>({ base, columns }: PackedEntries<T>): Rows[T][] {
  const dated: Rows[T][] = []
  for (let entry = 0; entry < columns.count; entry += 1) {
    const { from, until } = columns.entryAt(entry)
    if (from !== null || until !== null) dated.push(base.at(entry))
  }
  return dated
}

/** What the index reads of an entry, besides where it lies and of whom it speaks. */
const contentFields = {
  grants: ['gives', 'from', 'until'],
  limits: ['allows', 'sparesStewards', 'from', 'until'],
} as const

async function storedEntries(
  { kinds }: Tables,
  reader: PackedReader,
  table: keyof typeof contentFields,
): Promise<StoredEntries> {
  const names = contentFields[table]
  const { fields } = kinds[table]
  const found = await reader.entries(table, names)
  const contents = JSON.parse(found.contents) as unknown[][]
  const read = readerOf<Partial<Grant & Limit>>(fields, names) as (
    values: readonly unknown[],
  ) => ReturnType<StoredEntries['entryAt']>
  return {
    ids: found,
    places: found.places,
    principals: JSON.parse(found.principals) as Principal[],
    entryAt: entry => read(contents[entry] as unknown[]),
    lines: found.records,
  }
}

type Held = keyof HeldRows

/** All other records, table by table in JSON. */
async function heldJson({ kinds }: Tables, reader: PackedReader): Promise<Readonly<Record<Held, string>>> {
  const found: [string, string][] = []
  for (const table of Object.keys(kinds) as TableName[])
    if (!packedTables.includes(table as PackedTable)) found.push([table, await reader.records(table)])
  return Object.fromEntries(found) as Record<Held, string>
}

const heldRows = ({ kinds }: Tables, json: Readonly<Record<Held, string>>): HeldRows =>
  Object.fromEntries(
    Object.entries(json).map(([table, records]) => [table, recordsIn(kinds[table as Held].fields, records)]),
  ) as unknown as HeldRows

const recordsIn = <Row>(fields: Fields, json: string): Row[] =>
  (JSON.parse(json) as unknown[][]).map(readerOf<Row>(fields))
