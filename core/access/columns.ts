import { rowOf, rowsBy } from '../base/collection.ts'
import type { ColumnId, NodeId, PersonId } from '../base/ids.ts'
import { compareWords } from '../base/compare-words.ts'
import { type ActionSet, has } from '../levels/action.ts'
import type { Principal } from '../rules/principal.ts'
import type { Snapshot } from '../state/state.ts'
import type { BoardColumn } from '../rules/column.ts'
import { actionsAt } from './evaluate.ts'
import { type Place, placeOf } from './place.ts'
import { type Subject, subjectOf } from './subject.ts'

/** What a person may do with a column in one row, or in a row that stood directly on the board. */
export type ColumnAccess = 'none' | 'see' | 'edit'

/** `at` is a row of the board, or the board itself for what its rows have in common. */
export function checkColumn(
  snapshot: Snapshot,
  person: PersonId,
  { at, column }: { readonly at: NodeId; readonly column: ColumnId },
): ColumnAccess {
  const subject = subjectOf(snapshot, person)
  const place = placeOf(snapshot, at)
  const row = rowOf(snapshot.state.columns, column)
  if (subject === undefined || place === undefined || row === undefined) return 'none'
  const isThere = place.node.id === row.board || place.node.parent === row.board
  return isThere ? columnAccess(snapshot, subject, { place, column: row }) : 'none'
}

/** Seeing needs the row and being named; editing needs to see, to change the row, and being named. */
export function columnAccess(
  snapshot: Snapshot,
  subject: Subject,
  { place, column }: { readonly place: Place; readonly column: BoardColumn },
): ColumnAccess {
  const held = actionsAt(snapshot, subject, place)
  if (!has(held, 'see')) return 'none'
  const isSteward = stewardsBoard(snapshot, subject, column.board)
  const isNamed = (named: readonly Principal[] | null) =>
    named === null || isSteward || named.some(each => subject.principals.has(each))
  if (!isNamed(column.viewers)) return 'none'
  return writesRow(subject, held, place.node.maker) && isNamed(column.editors) ? 'edit' : 'see'
}

const stewardsBoard = (snapshot: Snapshot, subject: Subject, board: NodeId): boolean => {
  const place = placeOf(snapshot, board)
  return place !== undefined && has(actionsAt(snapshot, subject, place), 'share')
}

/** Which columns of a board a person sees, and which they may edit in the rows that they may change; no others are told. */
export function columnRights(
  snapshot: Snapshot,
  subject: Subject,
  board: NodeId,
): ReadonlyMap<ColumnId, { readonly edits: boolean }> {
  const isSteward = stewardsBoard(snapshot, subject, board)
  const isNamed = (named: readonly Principal[] | null) =>
    named === null || isSteward || named.some(each => subject.principals.has(each))
  return new Map(
    rowsBy(snapshot.state.columns, 'board', board).flatMap(({ id, viewers, editors }) =>
      isNamed(viewers) ? [[id, { edits: isNamed(editors) }] as const] : [],
    ),
  )
}

/** Whether a person may change what is written in a row: change, or add in one that they made. */
export const writesRow = (subject: Subject, held: ActionSet, maker: PersonId): boolean =>
  has(held, 'change') || (maker === subject.person.id && has(held, 'add'))

/** The board itself, or that of a row. */
const boardIn = ({ node }: Place): NodeId => (node.kind === 'row' ? (node.parent ?? node.id) : node.id)

/** The columns that a person may know of at a board, or at one of its rows, in the order in which they are shown. */
export const visibleColumns = (snapshot: Snapshot, subject: Subject, place: Place): BoardColumn[] =>
  rowsBy(snapshot.state.columns, 'board', boardIn(place))
    .filter(column => columnAccess(snapshot, subject, { place, column }) !== 'none')
    .sort((a, b) => a.order - b.order || compareWords(a.name, b.name) || (a.id < b.id ? -1 : 1))
