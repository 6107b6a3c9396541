import { nameColumn } from '#core/boards/view.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { NodeId, WorkspaceId } from '#core/base/ids.ts'
import type { BoardColumn } from '#core/rules/column.ts'
import type { Snapshot } from '#core/state/state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { beginBoard, type BoardThread, createBoardThread, dropBoard, tellRows } from '../../boards/asking.ts'
import type { RawRow } from '../../boards/message.ts'
import type { PlainUsage } from '../../boards/plain-usage.ts'
import type { Parts } from '../../parts.ts'
import { cellTextsOf } from '../../store/content/row-cells.ts'
import type { Follower } from '../../store/log.ts'
import { plainUsageOf } from './usage.ts'

/**
 * The boards that somebody looks at, held in a thread. A board is read whole when it is first asked for; from then on the
 * log says which of its rows are others, and these are read again before the next question. What is held is never more
 * than a copy: another process holds its own.
 */
export interface HeldBoards {
  readonly thread: BoardThread
  readonly byBoard: Map<NodeId, Held>
}

export interface Held {
  readonly workspace: WorkspaceId
  /** What its cells were read by: other columns have it read anew. */
  columns: string
  /** Rows to be read again; all of them, where it is not known which. */
  stale: Set<NodeId> | 'all'
  /** Grows whenever something of it was read. */
  version: number
  working: Promise<void> | null
  askedAt: number
}

export function createHeldBoards(): HeldBoards {
  const held: HeldBoards = { thread: createBoardThread(), byBoard: new Map() }
  held.thread.onGone = () => held.byBoard.clear()
  return held
}

/** Hears which rows are others; a board that nobody holds is nothing to it. */
export const followerOfBoards = ({ byBoard }: HeldBoards): Follower => ({
  load: () => {
    for (const held of byBoard.values()) held.stale = 'all'
  },
  hear: ({ news }) => {
    for (const each of news) {
      if (each.of !== 'rows') continue
      const held = byBoard.get(each.board)
      if (held === undefined) continue
      if (each.rows === null || held.stale === 'all') held.stale = 'all'
      else for (const row of each.rows) held.stale.add(row)
    }
  },
})

/** So many rows are read, and told to the thread, at a time. */
const rowsAtOnce = 1000
/** A board that nobody asked about for so long is let go of. */
const heldFor = 3_600_000

interface Wanted {
  readonly workspace: WorkspaceId
  readonly snapshot: Snapshot
  readonly board: NodeId
}

/** Resolves once the thread has a board as it is in a state, or later. */
export async function upToDate(parts: Parts, wanted: Wanted): Promise<Held> {
  const { byBoard } = parts.boards
  const { workspace, snapshot, board } = wanted
  for (;;) {
    const held = byBoard.get(board) ?? newlyHeld(workspace)
    byBoard.set(board, held)
    held.askedAt = parts.clock()
    if (held.working === null) {
      const columns = rowsBy(snapshot.state.columns, 'board', board)
      const key = columnsKey(columns)
      if (held.columns !== key) held.stale = 'all'
      if (held.stale !== 'all' && held.stale.size === 0) return held
      held.columns = key
      held.working = readStale(parts, wanted, { held, columns }).finally(() => {
        held.working = null
      })
    }
    await held.working
  }
}

const newlyHeld = (workspace: WorkspaceId): Held => ({
  workspace,
  columns: '',
  stale: 'all',
  version: 0,
  working: null,
  askedAt: 0,
})

const columnsKey = (columns: readonly BoardColumn[]): string =>
  JSON.stringify(columns.map(({ id, kind, settings, former }) => [id, kind, settings, former]).sort())

interface Reading {
  readonly held: Held
  readonly columns: readonly BoardColumn[]
}

async function readStale(parts: Parts, wanted: Wanted, { held, columns }: Reading): Promise<void> {
  const { stale } = held
  // What is written from here on is heard again.
  held.stale = new Set()
  try {
    if (stale === 'all') await readBoard(parts, wanted, columns)
    else await readRows(parts, wanted, [...stale])
    held.version += 1
  } catch (error) {
    held.stale = 'all'
    throw error
  }
}

async function readBoard(parts: Parts, wanted: Wanted, columns: readonly BoardColumn[]): Promise<void> {
  const { workspace, snapshot, board } = wanted
  const { thread } = parts.boards
  beginBoard(thread, board, {
    columns: [
      { id: nameColumn, kind: 'text', settings: {}, former: [] },
      ...columns.map(({ id, kind, settings, former }) => ({ id, kind, settings, former })),
    ],
    usage: usageToSend(snapshot, columns),
  })
  const nodes = rowsBy(snapshot.state.nodes, 'parent', board)
  for (let from = 0; from < nodes.length; from += rowsAtOnce)
    tellRows(thread, board, {
      rows: await rawRows(parts, workspace, nodes.slice(from, from + rowsAtOnce)),
      gone: [],
    })
}

/** As they stand in their records, with what is written in them. */
async function rawRows(
  { writer }: Parts,
  workspace: WorkspaceId,
  nodes: readonly ContentNode[],
): Promise<RawRow[]> {
  const texts = await cellTextsOf(writer.tables, { workspace, nodes: nodes.map(each => each.id) })
  const cells = new Map(texts.map(each => [each.node, each.cells]))
  return nodes.map(node => rawRow(node, cells.get(node.id)))
}

/** Names are only needed where a column was of another kind before. */
const usageToSend = (snapshot: Snapshot, columns: readonly BoardColumn[]): PlainUsage => {
  const usage = plainUsageOf(snapshot)
  const needsNames = columns.some(each => each.former.length > 0)
  return needsNames ? usage : { ...usage, names: new Map(), people: new Map() }
}

const rawRow = (
  { id, name, order, section, serial, madeAt, maker }: ContentNode,
  cells: string | undefined,
): RawRow => [id, name, order, section, serial, madeAt, maker, cells ?? null]

async function readRows(parts: Parts, { workspace, board }: Wanted, ids: readonly NodeId[]): Promise<void> {
  // As it is by now: it was heard of after whoever asks began to.
  const snapshot = parts.writer.states.published.get(workspace)?.snapshot
  if (snapshot === undefined) return
  const there = ids.flatMap(id => {
    const node = rowOf(snapshot.state.nodes, id)
    return node?.parent === board ? [node] : []
  })
  const isThere = new Set(there.map(each => each.id))
  tellRows(parts.boards.thread, board, {
    rows: await rawRows(parts, workspace, there),
    gone: ids.filter(id => !isThere.has(id)),
  })
}

/** Lets go of boards that nobody looks at, and of those of workspaces that were put away. */
export function dropUnusedBoards({ boards: { byBoard, thread }, writer, clock }: Parts): void {
  for (const [board, { workspace, askedAt, working }] of byBoard)
    if (working === null && (askedAt + heldFor < clock() || !writer.states.published.has(workspace))) {
      byBoard.delete(board)
      dropBoard(thread, board)
    }
}
