import type { CellsRequest } from '#contract/board-requests.ts'
import type { Topic } from '#contract/topics.ts'
import type { CellConflict, WrittenCells } from '#contract/views/boards.ts'
import { isOwnPlace } from '#core/access/by-id.ts'
import type { ColumnId, NodeId, SectionId } from '#core/base/ids.ts'
import { ok, refused, type Result } from '#core/base/result.ts'
import { orderStep } from '#core/boards/order.ts'
import { nameColumn } from '#core/boards/view.ts'
import type { Edit } from '#core/changes/edit.ts'
import { judge, type Judged, type Refused } from '#core/changes/judge.ts'
import { rowOf } from '#core/base/collection.ts'
import type { Snapshot } from '#core/state/state.ts'
import { askBoard } from '../../boards/asking.ts'
import type { Parts } from '../../parts.ts'
import { ProblemError, problemOf } from '../../problem-error.ts'
import type { Commit } from '../../store/commit.ts'
import {
  cellsOf,
  type CellWrite,
  type RowOfCells,
  type StoredCell,
  writeCells,
} from '../../store/content/row-cells.ts'
import type { News } from '../../store/news.ts'
import { submit } from '../../store/writer.ts'
import { type Failed, writeJudged } from '../changes/change.ts'
import { problemFrom } from '../changes/change-set.ts'
import { placesChanged } from '../changes/place-changes.ts'
import { type Asker, knowsPerson, nameOf, readerAt } from '../viewer/asker.ts'
import { type Cell, cellJudging, type Verdict } from './cell-judging.ts'
import { upToDate } from './held-boards.ts'
import { boardOf } from './looking.ts'

/** So often it is tried anew because somebody else wrote in the same rows at the same time. */
const triesAtMost = 20

interface Writing {
  readonly asker: Asker
  readonly board: NodeId
  readonly cells: readonly Cell[]
  readonly edits: readonly Edit[]
  readonly made: ReadonlyMap<string, NodeId>
  readonly isPartial: boolean
  readonly reason: string
}

type Unfit = Refused | Failed | 'again' | { readonly verdicts: readonly Left[] }

/** A cell that is not written, and why. */
interface Left extends Pick<Cell, 'row' | 'column'> {
  readonly why: string
  readonly conflict?: StoredCell
}

/**
 * Content steps: some cells of some rows, new ones among them, all of it or nothing; or, where that is wanted, what can be.
 * Names and new rows are records, and go the road of change sets in the same write. A cell that somebody else wrote since
 * its author saw it is not overwritten.
 */
export async function writeCellsOf(
  parts: Parts,
  asker: Asker,
  { id, request }: { readonly id: string; readonly request: CellsRequest },
): Promise<WrittenCells> {
  return writeRows(parts, asker, { board: boardOf(asker, id).node.id, request })
}

export interface RowsToWrite {
  readonly board: NodeId
  readonly request: CellsRequest
  /** Rows that are put elsewhere in the same write. */
  readonly moves?: readonly Edit[]
  readonly reason?: string
}

export async function writeRows(parts: Parts, asker: Asker, requested: RowsToWrite): Promise<WrittenCells> {
  const writing = await writingFrom(parts, asker, requested)
  const rows = [...new Set(writing.cells.map(each => each.row))]
  const { workspace } = asker
  for (let tries = 0; tries < triesAtMost; tries += 1) {
    const stored = await cellsOf(parts.writer.tables, { workspace, nodes: rows })
    const result = await submit<WrittenCells, Unfit>(parts.writer, candidates => {
      const before = candidates.snapshotOf(workspace)
      return before === undefined ? refused('again') : prepared(parts, writing, { before, stored })
    })
    if (result.ok) return result.value
    if (result.error !== 'again') throw problemFor(asker, result.error)
  }
  throw problemOf('others-changed')
}

/** With the ids of what is new, and the edits that make it. */
async function writingFrom(
  parts: Parts,
  asker: Asker,
  { board, request, moves = [], reason = '' }: RowsToWrite,
): Promise<Writing> {
  const { rows = [], isPartial = false } = request
  const made = new Map(rows.map(({ row }) => [row, parts.newId() as NodeId]))
  const cells = request.cells.map(({ row, column, ...cell }): Cell => ({
    ...cell,
    column,
    row: made.get(row) ?? (row as NodeId),
    isNew: made.has(row),
  }))
  const names = new Map(
    cells.flatMap(({ row, column, value }) =>
      column === nameColumn ? [[row, nameFrom(value)] as const] : [],
    ),
  )
  const last = rows.length === 0 ? 0 : await lastOrder(parts, asker, board)
  const edits = rows.map(({ row, section, order }, index): Edit => {
    const node = made.get(row) as NodeId
    const name = names.get(node)
    if (name === undefined)
      throw problemOf('bad-input', { faults: [{ at: 'rows', message: 'Each new row needs a name.' }] })
    const place = order ?? last + (index + 1) * orderStep
    return {
      kind: 'node.create',
      node,
      parent: board,
      as: 'row',
      name,
      order: place,
      section: section as SectionId | null,
    }
  })
  return { asker, board, cells, edits: [...edits, ...moves], made, isPartial, reason }
}

/** As every name is cleaned; what is none is refused where it is judged. */
const nameFrom = (value: Cell['value']): string | undefined =>
  typeof value === 'string' && value.trim() !== '' && value.length <= 200 ? value.trim() : undefined

async function lastOrder(parts: Parts, { workspace, snapshot }: Asker, board: NodeId): Promise<number> {
  await upToDate(parts, { workspace, snapshot, board })
  return askBoard<'last order'>(parts.boards.thread, board, { kind: 'last order' })
}

interface At {
  readonly before: Snapshot
  readonly stored: readonly RowOfCells[]
}

/** Judged in the writer's turn: on the state as it is, and on the cells as they were read. */
function prepared(
  parts: Parts,
  writing: Writing,
  { before, stored }: At,
): Result<Commit<WrittenCells, Unfit>, Unfit> {
  const { asker, board, cells, isPartial } = writing
  const author = readerAt(asker.workspace, before, asker.person)
  if (author === undefined) throw problemOf('not-found')
  const judging = cellJudging(author, board)
  const storedOf = new Map(stored.map(each => [each.node, each]))
  const verdicts = cells.map((cell): Verdict & { cell: Cell } => {
    const there = storedOf.get(cell.row)?.cells[cell.column]
    return { cell, ...judging(cell, there) }
  })
  const left = verdicts.flatMap(({ cell: { row, column }, why, conflict }): Left[] =>
    why === undefined ? [] : [{ row, column, why, ...(conflict === undefined ? {} : { conflict }) }],
  )
  if (left.length > 0 && !isPartial) return refused({ verdicts: left })
  const kept = verdicts.filter(each => each.why === undefined && !each.isSame).map(each => each.cell)
  const judged = judgedNames(before, writing, kept)
  if (!judged.ok) return judged
  const writes = writesFrom(before, { asker, kept, storedOf, judging })
  const value: WrittenCells = {
    versions: Object.fromEntries(writes.map(({ node, at }) => [node, at])),
    made: Object.fromEntries(writing.made),
    left: left.map(({ row, column, why }) => ({ row, column, why })),
  }
  return ok(commitOf(parts, { writing, before, value, writes, judged: judged.value }))
}

interface NamesJudged {
  readonly edits: readonly Edit[]
  readonly judged: Judged
}

/** New rows and new names, as a change set of their author's. */
function judgedNames(
  before: Snapshot,
  { asker, edits, made, reason }: Writing,
  cells: readonly Cell[],
): Result<NamesJudged | undefined, Refused> {
  const isMade = new Set(made.values())
  const all: Edit[] = [
    ...edits,
    ...cells.flatMap(({ row, column, value }): Edit[] =>
      column === nameColumn && !isMade.has(row)
        ? [{ kind: 'node.describe', node: row, name: String(value).trim() }]
        : [],
    ),
  ]
  if (all.length === 0) return ok(undefined)
  const judged = judge(before, { author: asker.person, reason, edits: all })
  return judged.ok ? ok({ edits: all, judged: judged.value }) : judged
}

interface Kept {
  readonly asker: Asker
  readonly kept: readonly Cell[]
  readonly storedOf: ReadonlyMap<NodeId, RowOfCells>
  readonly judging: ReturnType<typeof cellJudging>
}

/** One write a row. Of each cell it is later than the one before. */
function writesFrom({ at: now }: Snapshot, { asker, kept, storedOf, judging }: Kept): CellWrite[] {
  const byRow = new Map<NodeId, Cell[]>()
  for (const cell of kept) byRow.set(cell.row, [...(byRow.get(cell.row) ?? []), cell])
  return [...byRow].map(([node, cells]) => {
    const { version = 0, cells: before = {} } = storedOf.get(node) ?? {}
    const at = Math.max(now, ...cells.map(({ column }) => (before[column]?.[1] ?? 0) + 1))
    const written = cells.map(
      ({ column, value }) =>
        [column, [value, at, asker.person, judging.formOf(column)] as StoredCell] as const,
    )
    return {
      node,
      version: version + 1,
      cells: { ...before, ...Object.fromEntries(written) },
      changes: Object.fromEntries(written.map(([column, cell]) => [column, [before[column] ?? null, cell]])),
      at,
      by: asker.person,
    }
  })
}

interface Committing {
  readonly writing: Writing
  readonly before: Snapshot
  readonly value: WrittenCells
  readonly writes: readonly CellWrite[]
  readonly judged: NamesJudged | undefined
}

function commitOf(
  parts: Parts,
  { writing, before, value, writes, judged }: Committing,
): Commit<WrittenCells, Unfit> {
  const { asker, board, reason } = writing
  const { workspace, person: author } = asker
  const named =
    judged === undefined
      ? undefined
      : writeJudged(parts, {
          workspace,
          before,
          changeSet: { author, reason, edits: judged.edits },
          judged: judged.judged,
        })
  const cells = writeCells<Unfit>(workspace, writes, 'again')
  const revision = named?.value ?? before.state.revision
  return {
    ...(named?.state === undefined ? {} : { state: named.state }),
    value,
    conditions: [...(named?.conditions ?? []), ...cells.conditions],
    rows: [
      ...(named?.rows ?? []),
      ...cells.rows,
      placesChanged({ workspace, at: before.at, by: author, places: openlyChanged(before, writes) }),
    ],
    news: [...(named?.news ?? []), ...newsOf(before, { workspace, board, writes, revision })],
  }
}

interface Told {
  readonly workspace: Asker['workspace']
  readonly board: NodeId
  readonly writes: readonly CellWrite[]
  readonly revision: number
}

const isRestricted = ({ state }: Snapshot, column: string): boolean =>
  (rowOf(state.columns, column as ColumnId)?.viewers ?? null) !== null

/** That something restricted was written is not told by when its row was changed last. */
const openlyChanged = (before: Snapshot, writes: readonly CellWrite[]): NodeId[] =>
  writes.flatMap(({ node, changes }) =>
    Object.keys(changes).some(column => !isRestricted(before, column)) ? [node] : [],
  )

/** Of more rows than this one is told as of the board. */
const rowsTold = 200
const rowsNamed = 2000

function newsOf(before: Snapshot, { workspace, board, writes, revision }: Told): News[] {
  if (writes.length === 0) return []
  const nodes = writes.map(each => each.node)
  const { state } = before
  const within: Topic = `within:${board}`
  const all = writes.map(({ node, changes }) => {
    const columns = Object.keys(changes)
    const isOpen = columns.some(column => !isRestricted(before, column))
    return { node, isApart: isOwnPlace(state, node), columns: isOpen ? null : (columns as ColumnId[]) }
  })
  // Rows that are seen as the board is, and of which something is written that all see, are told together.
  const together = all.filter(each => !each.isApart && each.columns === null)
  const alone = all.filter(each => each.isApart || each.columns !== null)
  const documents =
    together.length > rowsTold ? (['places'] as const) : together.map(({ node }): Topic => `document:${node}`)
  return [
    { of: 'rows', workspace, board, rows: nodes.length > rowsNamed ? null : nodes },
    { of: 'content', workspace, nodes },
    {
      of: 'event',
      workspace,
      revision,
      concerns: [
        ...(together.length === 0 ? [] : [{ topics: [within, ...documents], node: board }]),
        ...alone.map(({ node, columns }) => ({
          topics: [within, `document:${node}` as const],
          node,
          ...(columns === null ? {} : { columns }),
        })),
      ],
    },
  ]
}

function problemFor(asker: Asker, error: Exclude<Unfit, 'again'>): ProblemError {
  if ('problem' in error) return problemOf(error.problem)
  if (!('verdicts' in error)) return new ProblemError(problemFrom(error, asker))
  const conflicts = error.verdicts.flatMap(({ row, column, conflict }): CellConflict[] => {
    if (conflict === undefined) return []
    const [now, at, by] = conflict
    return [{ row, column, now, at, by: knowsPerson(asker, by) ? nameOf(asker.snapshot, by) : null }]
  })
  if (conflicts.length > 0) return problemOf('cells-changed', { conflicts })
  return problemOf('cells-refused', {
    cells: error.verdicts.slice(0, 500).map(({ row, column, why }) => ({ row, column, why })),
    refused: error.verdicts.length,
  })
}
