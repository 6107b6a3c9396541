import { setImmediate } from 'node:timers/promises'
import { Op, QueryTypes } from 'sequelize'
import type { NodeId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { isSame } from '#core/base/same.ts'
import type { RecordChange } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import type { Follower, LogEntry } from '../../store/log.ts'
import type { News } from '../../store/news.ts'
import { changesFor, changesForFile, type Places, textAtOnce } from './documents.ts'

/**
 * Keeps the index of words behind what is written: it follows the log, and goes on where it was when the server stopped.
 * Where there is no index, or it is too far behind, it is made anew of the database, while others read and write.
 */
export interface Indexer {
  readonly parts: Parts
  readonly waiting: LogEntry[]
  running: Promise<void> | null
  /** Until it begins. */
  timer: NodeJS.Timeout | null
  isStopped: boolean
  isBehind: boolean
}

/** How far the index is made, from 0 to 1, where it is being made anew. */
export interface Indexing {
  done: number
}

const together = 200
const pageLength = 5000

export const createIndexer = (parts: Parts): Indexer => ({
  parts,
  waiting: [],
  running: null,
  timer: null,
  isStopped: false,
  isBehind: false,
})

export const followerOfSearch = (indexer: Indexer): Follower => ({
  load: async () => {
    indexer.waiting.length = 0
    const behind = await entriesSince(indexer)
    indexer.isBehind = behind === undefined
    indexer.waiting.push(...(behind ?? []))
    begin(indexer)
  },
  hear: entry => {
    indexer.waiting.push(entry)
    beginIn(indexer, gatheredFor)
  },
})

export async function stopIndexer(indexer: Indexer): Promise<void> {
  indexer.isStopped = true
  clearTimeout(indexer.timer ?? undefined)
  await indexer.running
}

/** Resolves once all that was written is in the index. */
export async function whenIndexed(indexer: Indexer): Promise<void> {
  do {
    if (indexer.timer !== null) begin(indexer)
    await indexer.running
  } while (indexer.timer !== null)
}

/** In milliseconds: what is written meanwhile is indexed with it, for a part of what each would take by itself. */
const gatheredFor = 500
const retryAfter = 1000

function beginIn(indexer: Indexer, milliseconds: number): void {
  if (indexer.running === null) indexer.timer ??= setTimeout(() => begin(indexer), milliseconds).unref()
}

function begin(indexer: Indexer): void {
  clearTimeout(indexer.timer ?? undefined)
  indexer.timer = null
  indexer.running ??= run(indexer)
    .then(() => gatheredFor)
    .catch((error: unknown) => {
      indexer.parts.log.error({ err: error as Error }, 'what was written could not be indexed')
      return retryAfter
    })
    .then(after => {
      indexer.running = null
      if (indexer.waiting.length > 0 && !indexer.isStopped) beginIn(indexer, after)
    })
}

/** What was written since the index was written last; `undefined` where that is not kept any more. */
async function entriesSince({ parts: { writer, index } }: Indexer): Promise<LogEntry[] | undefined> {
  const position = await index.position()
  if (position === undefined) return undefined
  const { rows } = writer.log
  const since = await rows.findAll({
    where: { position: { [Op.gt]: position } },
    order: [['position', 'ASC']],
    raw: true,
  })
  const entries = (since as unknown as (Omit<LogEntry, 'news'> & { readonly news: string })[]).map(each => ({
    ...each,
    news: JSON.parse(each.news) as News[],
  }))
  const [first] = entries
  const last = Number((await rows.max('position')) ?? 0)
  const isWhole = first === undefined ? last === position : first.position === position + 1
  return isWhole ? entries : undefined
}

async function run(indexer: Indexer): Promise<void> {
  const isStopped = () => indexer.isStopped
  if (indexer.isBehind) await indexAll(indexer.parts, isStopped)
  if (isStopped()) return
  indexer.isBehind = false
  do await followOn(indexer)
  while (!isStopped() && (await readNext(indexer.parts)))
}

/** Takes in what was written until now, and forgets it only then; what is written meanwhile gathers for the next time. */
async function followOn(indexer: Indexer): Promise<void> {
  const { parts, waiting } = indexer
  for (let left = waiting.length; left > 0 && !indexer.isStopped;) {
    const entries = waiting.slice(0, Math.min(left, together))
    for (const touched of await touchedBy(parts, entries)) await indexTouched(parts, touched)
    await parts.index.write({ ...nothing, position: (entries.at(-1) as LogEntry).position })
    waiting.splice(0, entries.length)
    left -= entries.length
  }
}

const nothing = { puts: [], drops: [], waiting: [], read: [] }

async function indexTouched(parts: Parts, { workspace, nodes, boards }: Touched): Promise<void> {
  const places = [...nodes]
  for (let from = 0; from < places.length; from += together)
    await writeAll(parts, { workspace, nodes: places.slice(from, from + together) })
  for (const board of boards)
    for await (const rows of rowsOf(parts, { workspace, board }))
      await writeAll(parts, { workspace, nodes: rows, isOfCells: true })
}

/** All rows of a board, some at a time. */
async function* rowsOf(
  { writer }: Parts,
  { workspace, board }: { readonly workspace: WorkspaceId; readonly board: NodeId },
): AsyncGenerator<NodeId[]> {
  for (let last = ''; ;) {
    const rows = (await writer.tables.records.nodes.findAll({
      attributes: ['id'],
      where: { workspace, parent: board, id: { [Op.gt]: last } },
      order: [['id', 'ASC']],
      limit: together,
      raw: true,
    })) as unknown as { readonly id: NodeId }[]
    if (rows.length > 0) yield rows.map(each => each.id)
    if (rows.length < together) return
    last = rows.at(-1)?.id ?? ''
  }
}

/** A few hundred places, as much text at a time as holds nobody up. */
async function writeAll(parts: Parts, places: Places): Promise<void> {
  const { puts, ...rest } = await changesFor(parts, places)
  let from = 0
  do {
    let until = from
    for (let length = 0; until < puts.length && length < textAtOnce; until += 1)
      length += puts[until]?.body.length ?? 0
    await parts.index.write({ ...(from === 0 ? rest : nothing), puts: puts.slice(from, until) })
    from = until
    await setImmediate()
  } while (from < puts.length)
}

/** What some entries of the log are about. */
interface Touched {
  readonly workspace: WorkspaceId
  readonly nodes: Set<NodeId>
  /** Of which the columns are others: what stands in their cells may be read otherwise, or by others. */
  readonly boards: Set<NodeId>
}

async function touchedBy(parts: Parts, entries: readonly LogEntry[]): Promise<readonly Touched[]> {
  const touched = new Map<WorkspaceId, Touched>()
  const revisions = new Map<WorkspaceId, number[]>()
  const of = (workspace: WorkspaceId): Touched => {
    const found = touched.get(workspace) ?? { workspace, nodes: new Set(), boards: new Set() }
    touched.set(workspace, found)
    return found
  }
  for (const each of entries.flatMap(({ news }) => news))
    if (each.of === 'revision')
      revisions.set(each.workspace, [...(revisions.get(each.workspace) ?? []), each.revision])
    else if (each.of === 'content') for (const node of each.nodes) of(each.workspace).nodes.add(node)
  for (const [workspace, some] of revisions)
    for (const change of await changesIn(parts, workspace, some)) touch(of(workspace), change)
  return [...touched.values()]
}

function touch({ nodes, boards }: Touched, change: RecordChange): void {
  if (change.table === 'nodes') nodes.add(change.id)
  if (change.table !== 'columns' || !isReadOtherwise(change)) return
  const board = (change.after ?? change.before)?.board
  if (board !== undefined) boards.add(board)
}

async function changesIn(
  { writer }: Parts,
  workspace: WorkspaceId,
  revisions: readonly number[],
): Promise<RecordChange[]> {
  const rows = (await writer.tables.changeSets.findAll({
    attributes: ['changes'],
    where: { workspace, revision: [...revisions] },
    raw: true,
  })) as unknown as { readonly changes: string }[]
  return rows.flatMap(row => JSON.parse(row.changes) as RecordChange[])
}

const isReadOtherwise = ({ before, after }: Extract<RecordChange, { table: 'columns' }>): boolean =>
  before === null ||
  after === null ||
  (['kind', 'settings', 'viewers'] as const).some(field => !isSame(before[field], after[field]))

/** Reads the text of one file that waits for it; others may have been written meanwhile, and come first. */
async function readNext(parts: Parts): Promise<boolean> {
  const [file] = await parts.index.waiting(1)
  if (file === undefined) return false
  await parts.index.write(await changesForFile(parts, file))
  return true
}

/** Reads the text of all files that wait for it. Resolves to how many there were. */
export async function readFiles(parts: Parts, onProgress: (done: number) => void): Promise<number> {
  for (let done = 0; ; done += 1) {
    if (!(await readNext(parts))) return done
    onProgress(done)
  }
}

/**
 * Makes the index anew: what was changed last comes last, as it does when it is written. Costs a look at every place,
 * and for each some tens of bytes until it is done.
 */
export async function indexAll(parts: Parts, isStopped: () => boolean = () => false): Promise<void> {
  const { index, indexing, writer } = parts
  indexing.done = 0
  const position = Number((await writer.log.rows.max('position')) ?? 0)
  await index.clear()
  const { workspaces } = writer.tables.records
  const rows = (await workspaces.findAll({ attributes: ['id'], raw: true })) as unknown as {
    id: WorkspaceId
  }[]
  for (const [at, { id: workspace }] of rows.entries()) {
    const nodes = await placesByTime(parts, workspace)
    for (let from = 0; from < nodes.length; from += together) {
      if (isStopped()) return
      await writeAll(parts, { workspace, nodes: nodes.slice(from, from + together) })
      indexing.done = (at + from / nodes.length) / rows.length
    }
  }
  await index.write({ ...nothing, position })
  indexing.done = 1
}

/** All places of a workspace, the one that was changed last at the end. */
async function placesByTime({ writer }: Parts, workspace: WorkspaceId): Promise<NodeId[]> {
  const ids: NodeId[] = []
  const instants: Instant[] = []
  for (let last: string = ''; ;) {
    const rows = await writer.tables.database.query<{ readonly id: NodeId; readonly at: Instant }>(
      `SELECT nodes.id AS id, COALESCE("placeChanges"."at", nodes."madeAt") AS "at" FROM nodes
        LEFT JOIN "placeChanges" ON "placeChanges".workspace = nodes.workspace AND "placeChanges".id = nodes.id
        WHERE nodes.workspace = $workspace AND nodes.id > $last ORDER BY nodes.id LIMIT $most`,
      { type: QueryTypes.SELECT, bind: { workspace, last, most: pageLength } },
    )
    for (const { id, at } of rows) {
      ids.push(id)
      instants.push(at)
    }
    last = rows.at(-1)?.id ?? ''
    if (rows.length < pageLength) break
    await setImmediate()
  }
  const order = Uint32Array.from(ids.keys()).sort((a, b) => (instants[a] ?? 0) - (instants[b] ?? 0))
  return Array.from(order, at => ids[at] as NodeId)
}
