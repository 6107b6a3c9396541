import { rowOf } from '../../base/collection.ts'
import type { BoardViewId, NodeId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import type { ViewState } from '../../boards/view.ts'
import type { BoardView } from '../../rules/board.ts'
import { gone } from '../../state/naming.ts'
import { type EditRule, isTaken } from '../context.ts'
import { lacksArranging } from './section.ts'

export interface CreateBoardView {
  readonly kind: 'view.create'
  readonly view: BoardViewId
  readonly board: NodeId
  readonly name: string
  readonly order: number
  readonly state: ViewState
}

/** A view is never more than a way to look: who sees less than it names sees less. */
export const createBoardView: EditRule<CreateBoardView> = {
  kind: 'view.create',
  lacks: (context, edit) => lacksArranging(context, edit.board, 'view'),
  apply: ({ now }, { view: id, board, name, order, state }) => {
    if (rowOf(now.state.nodes, board)?.kind !== 'board') return refused({ code: 'unknown', what: 'place' })
    if (isTaken(now.state, 'boardViews', id)) return refused({ code: 'already-there', what: 'id' })
    const after: BoardView = { id, board, name, order, state }
    return ok([{ table: 'boardViews', id, before: null, after }])
  },
}

export interface ChangeBoardView {
  readonly kind: 'view.change'
  readonly view: BoardViewId
  readonly name?: string | undefined
  readonly order?: number | undefined
  readonly state?: ViewState | undefined
}

export const changeBoardView: EditRule<ChangeBoardView> = {
  kind: 'view.change',
  lacks: (context, edit) =>
    lacksArranging(context, rowOf(context.before.state.boardViews, edit.view)?.board, 'view'),
  apply: ({ now }, { view, name, order, state }) => {
    const before = rowOf(now.state.boardViews, view)
    if (before === undefined) return refused({ code: 'unknown', what: 'view' })
    const after: BoardView = {
      ...before,
      name: name ?? before.name,
      order: order ?? before.order,
      state: state ?? before.state,
    }
    return ok([{ table: 'boardViews', id: view, before, after }])
  },
}

export interface DeleteBoardView {
  readonly kind: 'view.delete'
  readonly view: BoardViewId
}

export const deleteBoardView: EditRule<DeleteBoardView> = {
  kind: 'view.delete',
  lacks: (context, edit) =>
    lacksArranging(context, rowOf(context.before.state.boardViews, edit.view)?.board, 'view'),
  apply: ({ now }, { view }) => {
    const before = rowOf(now.state.boardViews, view)
    return before === undefined
      ? refused({ code: 'unknown', what: 'view' })
      : ok([gone('boardViews', before)])
  },
}
