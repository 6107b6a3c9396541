import { checkColumn, type ColumnAccess } from './columns.ts'
import { allRows, rowOf, rowsBy } from '../base/collection.ts'
import type { ColumnId, NodeId, PersonId } from '../base/ids.ts'
import { type Moment, pathOf, type State } from '../state/state.ts'

/** What one person may do with a restricted column without a change set and with it, in a row or on its board. */
export interface ColumnDifference {
  readonly person: PersonId
  readonly column: ColumnId
  readonly at: NodeId
  readonly before: ColumnAccess
  readonly after: ColumnAccess
}

interface Touched {
  readonly places: readonly { readonly node: NodeId }[]
  readonly people: readonly PersonId[]
}

/**
 * Told at boards, and at rows with entries of their own: the other rows answer as their board does. Columns
 * open to everyone who sees the row follow it and are not told.
 */
export function columnDifferences(
  { places, people }: Touched,
  was: Moment,
  will: Moment,
): ColumnDifference[] {
  return placesIn(places, was.state, will.state).flatMap(at =>
    restrictedAt(was.state, will.state, at).flatMap(column =>
      people.flatMap(person => {
        const before = checkColumn(was, person, { at, column })
        const after = checkColumn(will, person, { at, column })
        return before === after ? [] : [{ person, column, at, before, after }]
      }),
    ),
  )
}

/** The tops of what is touched, and the boards in it that have restricted columns. */
function placesIn(places: Touched['places'], was: State, will: State): NodeId[] {
  const tops = new Set(places.map(each => each.node))
  const boards = new Set(
    [was, will].flatMap(({ columns }) =>
      columns.rows.size === 0
        ? []
        : allRows(columns)
            .filter(each => each.viewers !== null || each.editors !== null)
            .map(each => each.board),
    ),
  )
  for (const board of boards)
    if ([was, will].some(state => pathOf(state, board).some(each => tops.has(each.id)))) tops.add(board)
  return [...tops]
}

function restrictedAt(was: State, will: State, at: NodeId): ColumnId[] {
  const found = new Set<ColumnId>()
  for (const state of [was, will]) {
    const board = boardAt(state, at)
    if (board !== undefined)
      for (const { id, viewers, editors } of rowsBy(state.columns, 'board', board))
        if (viewers !== null || editors !== null) found.add(id)
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
