import { rowOf } from '../../base/collection.ts'
import { isSame } from '../../base/same.ts'
import { ok, refused } from '../../base/result.ts'
import { checkColumn } from '../../access/columns.ts'
import type { Principal } from '../../rules/principal.ts'
import type { BoardColumn } from '../../rules/column.ts'
import {
  type Context,
  type EditOf,
  type EditRule,
  isTaken,
  lacksAction,
  lacksActionInArchive,
  unknownPrincipal,
} from '../context.ts'
import type { Refusal } from '../refusal.ts'
import type { ColumnId, NodeId } from '../../base/ids.ts'

export interface CreateColumn {
  readonly kind: 'column.create'
  readonly column: ColumnId
  readonly board: NodeId
  readonly name: string
  readonly order: number
  readonly viewers: readonly Principal[] | null
  readonly editors: readonly Principal[] | null
}

/** Columns are arranged with the board; who sees or edits one is decided by those who share there. */
export const createColumn: EditRule<CreateColumn> = {
  kind: 'column.create',
  lacks: (context, { column: id, ...fields }) =>
    lacksColumnChange(context, null, { id, ...fields }) ?? unknownNames(context, fields),
  apply: (context, { column: id, board, name, order, viewers, editors }) => {
    const { state } = context.now
    if (rowOf(state.nodes, board)?.kind !== 'board') return refused({ code: 'unknown', what: 'place' })
    if (isTaken(state, 'columns', id)) return refused({ code: 'already-there', what: 'id' })
    const wrong = wrongNames({ viewers, editors })
    if (wrong !== undefined) return refused(wrong)
    const after: BoardColumn = { id, board, name, order, viewers, editors }
    return ok([{ table: 'columns', id, before: null, after }])
  },
}

export interface ChangeColumn {
  readonly kind: 'column.change'
  readonly column: ColumnId
  readonly name?: string | undefined
  readonly order?: number | undefined
  readonly viewers?: readonly Principal[] | null | undefined
  readonly editors?: readonly Principal[] | null | undefined
}

export const changeColumn: EditRule<ChangeColumn> = {
  kind: 'column.change',
  lacks: (context, edit) => {
    const before = rowOf(context.before.state.columns, edit.column)
    return before === undefined
      ? { code: 'unknown', what: 'column' }
      : (lacksColumnChange(context, before, changed(before, edit)) ?? unknownNames(context, edit))
  },
  apply: (context, edit) => {
    const before = rowOf(context.now.state.columns, edit.column)
    if (before === undefined) return refused({ code: 'unknown', what: 'column' })
    const wrong = wrongNames(edit)
    if (wrong !== undefined) return refused(wrong)
    return ok([{ table: 'columns', id: before.id, before, after: changed(before, edit) }])
  },
}

export interface DeleteColumn {
  readonly kind: 'column.delete'
  readonly column: ColumnId
}

export const deleteColumn: EditRule<DeleteColumn> = {
  kind: 'column.delete',
  lacks: (context, edit) => {
    const before = rowOf(context.before.state.columns, edit.column)
    return before === undefined
      ? { code: 'unknown', what: 'column' }
      : lacksColumnChange(context, before, null)
  },
  apply: (context, edit) => {
    const before = rowOf(context.now.state.columns, edit.column)
    if (before === undefined) return refused({ code: 'unknown', what: 'column' })
    return ok([{ table: 'columns', id: before.id, before, after: null }])
  },
}

/**
 * Share at the board wherever who is named changes, or a column with names comes or goes; else arrange. One that the
 * author may not see is refused exactly like one that does not exist.
 */
export function lacksColumnChange(
  context: Context,
  before: BoardColumn | null,
  after: BoardColumn | null,
): Refusal | undefined {
  const board = (after ?? before)?.board
  if (board === undefined) return { code: 'unknown', what: 'column' }
  const isHidden =
    before !== null &&
    checkColumn(context.before, context.author, { at: before.board, column: before.id }) === 'none'
  if (isHidden) return { code: 'unknown', what: 'column' }
  return isSame(namesIn(before), namesIn(after))
    ? lacksAction(context, board, 'arrange')
    : lacksActionInArchive(context, board, 'share')
}

interface Named {
  readonly viewers?: readonly Principal[] | null | undefined
  readonly editors?: readonly Principal[] | null | undefined
}

const namesIn = (column: BoardColumn | null) => [column?.viewers ?? null, column?.editors ?? null]

const changed = (before: BoardColumn, edit: EditOf<'column.change'>): BoardColumn => ({
  ...before,
  name: edit.name ?? before.name,
  order: edit.order ?? before.order,
  viewers: edit.viewers === undefined ? before.viewers : edit.viewers,
  editors: edit.editors === undefined ? before.editors : edit.editors,
})

const everyName = ({ viewers, editors }: Named) => [...(viewers ?? []), ...(editors ?? [])]

const unknownNames = (context: Context, named: Named): Refusal | undefined =>
  everyName(named).flatMap(each => unknownPrincipal(context, each) ?? [])[0]

/** Groups with guests are for limits, here as with grants. */
const wrongNames = (named: Named): Refusal | undefined =>
  everyName(named).some(each => each === 'guests' || each === 'anyone') ? { code: 'limits-only' } : undefined
