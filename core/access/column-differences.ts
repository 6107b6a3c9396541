import { checkColumn, type ColumnAccess } from './columns.ts'
import { allRows, rowOf, rowsBy } from '../base/collection.ts'
import type { ColumnId, NodeId, PersonId } from '../base/ids.ts'
import type { BoardColumn } from '../rules/column.ts'
import { type Snapshot, pathOf, type State } from '../state/state.ts'

/** What one person may do with a restricted column without a change set and with it, in a row or on its board. */
export interface ColumnDifference {
  readonly person: PersonId
  readonly column: ColumnId
  readonly at: NodeId
  readonly before: ColumnAccess
  readonly after: ColumnAccess
}

interface Affected {
  /** All that lies below these. */
  readonly roots: ReadonlySet<NodeId>
  readonly people: readonly PersonId[]
}

/**
 * Told at boards, and at rows with entries of their own: the other rows answer as their board does. Columns
 * open to everyone who sees the row follow it and are not told.
 */
export function columnDifferences(
  { roots, people }: Affected,
  was: Snapshot,
  will: Snapshot,
): ColumnDifference[] {
  return placesIn(roots, was.state, will.state).flatMap(at =>
    restrictedAt(was.state, will.state, at).flatMap(column =>
      people.flatMap(person => {
        const before = checkColumn(was, person, { at, column })
        const after = checkColumn(will, person, { at, column })
        return before === after ? [] : [{ person, column, at, before, after }]
      }),
    ),
  )
}

/** Whether anything would have to be told of restricted columns below some places. */
export const hasRestrictedColumns = (roots: ReadonlySet<NodeId>, was: State, will: State): boolean =>
  placesIn(roots, was, will).length > 0

/** The boards with restricted columns below some places, and their rows that stand apart. */
function placesIn(roots: ReadonlySet<NodeId>, was: State, will: State): NodeId[] {
  const found = new Set<NodeId>()
  for (const state of [was, will]) {
    if (state.columns.size === 0) continue
    const isBelow = (id: NodeId) => pathOf(state, id).some(each => roots.has(each.id))
    const boards = new Set(
      allRows(state.columns)
        .filter(isRestricted)
        .map(each => each.board),
    )
    for (const board of boards)
      for (const { id } of [{ id: board }, ...rowsBy(state.nodes, 'parent', board)])
        if (boardAt(state, id) === board && isBelow(id)) found.add(id)
  }
  return [...found]
}

const isRestricted = ({ viewers, editors }: BoardColumn): boolean => viewers !== null || editors !== null

function restrictedAt(was: State, will: State, at: NodeId): ColumnId[] {
  const found = new Set<ColumnId>()
  for (const state of [was, will]) {
    const board = boardAt(state, at)
    if (board !== undefined)
      for (const column of rowsBy(state.columns, 'board', board))
        if (isRestricted(column)) found.add(column.id)
  }
  return [...found]
}

function boardAt(state: State, at: NodeId): NodeId | undefined {
  const node = rowOf(state.nodes, at)
  if (node?.kind === 'board') return at
  if (node?.kind !== 'row' || node.parent === null) return undefined
  const isApart =
    node.broken !== null ||
    node.draft ||
    node.archived ||
    node.binned !== null ||
    rowsBy(state.grants, 'node', at).length + rowsBy(state.limits, 'node', at).length > 0
  return isApart ? node.parent : undefined
}
