import { Type } from '@sinclair/typebox'
import {
  cellsRequest,
  conversionRequest,
  editedCellRequest,
  importRowsRequest,
  judgeRowsRequest,
  ownColumnsRequest,
  ownViewRequest,
  putRowsRequest,
  rowsQuery,
  viewQuery,
} from '../board-requests.ts'
import { commentRequest, commentTextRequest, reachRequest, resolvedRequest } from '../requests.ts'
import { AppliedView } from '../views/workspace.ts'
import { bytes, nothing, type Route } from '../route.ts'
import {
  BoardInfo,
  CommentsView,
  CommentView,
  ConversionView,
  EditedCellView,
  JudgedRowsView,
  ReachView,
  RowChangeView,
  RowDetail,
  RowsView,
  SavedView,
  TotalsView,
  WrittenCells,
} from '../views/boards.ts'

const seeing = 'To see the place.'

/** What boards hold, how they are looked at, and what people say about it. */
export const boardRoutes = {
  board: { does: 'The columns, sections and views of a board.', needs: seeing, answer: BoardInfo },
  boardRows: {
    does: 'Some rows of a board, as a view shows them: only what its reader may see counts.',
    needs: seeing,
    query: rowsQuery,
    answer: RowsView,
  },
  boardTotals: {
    does: 'Sums and counts of the rows that a view shows.',
    needs: seeing,
    query: viewQuery,
    answer: TotalsView,
  },
  boardCsv: {
    does: 'What a view shows, as CSV.',
    needs: 'To copy from the place.',
    query: viewQuery,
    answer: bytes('text/csv'),
  },
  conversion: {
    does: 'What becoming another kind would do to the cells of a column.',
    needs: 'To arrange the board.',
    body: conversionRequest,
    answer: ConversionView,
  },
  writeCells: {
    does: 'Writes cells of rows that are there or new: all of them, or what can be.',
    needs: 'To change the rows, or to add some; and to edit the columns.',
    body: cellsRequest,
    answer: WrittenCells,
  },
  putRows: {
    does: 'Puts rows elsewhere on their board.',
    needs: 'To arrange the board.',
    body: putRowsRequest,
    answer: AppliedView,
  },
  judgeRows: {
    does: 'What rows of a table from elsewhere would do to a board.',
    needs: 'To add rows to the board, or to change some.',
    body: judgeRowsRequest,
    long: 'rows',
    answer: JudgedRowsView,
  },
  importRows: {
    does: 'Brings rows of a table in: those in which nothing is wrong.',
    needs: 'To add rows to the board, or to change some.',
    body: importRowsRequest,
    long: 'rows',
    answer: JudgedRowsView,
  },
  saveOwnView: { does: 'Keeps a view of one’s own.', needs: seeing, body: ownViewRequest, answer: SavedView },
  deleteOwnView: { does: 'Deletes a view of one’s own.', needs: seeing, answer: nothing },
  saveOwnColumns: {
    does: 'Keeps how one wants to see the columns of a board.',
    needs: seeing,
    body: ownColumnsRequest,
    answer: nothing,
  },
  editedCells: {
    does: 'In which cells others write right now.',
    needs: seeing,
    answer: Type.Array(EditedCellView),
  },
  editCell: {
    does: 'Says in which cell one writes, for a minute.',
    needs: seeing,
    body: editedCellRequest,
    answer: nothing,
  },
  row: { does: 'A row with all that stands in it.', needs: seeing, answer: RowDetail },
  rowHistory: {
    does: 'What was written in a row when, the newest first.',
    needs: seeing,
    answer: Type.Array(RowChangeView),
  },
  comments: { does: 'What people say about a place.', needs: seeing, answer: CommentsView },
  writeComment: {
    does: 'Says something about a place, or replies.',
    needs: 'To comment there.',
    body: commentRequest,
    answer: CommentView,
  },
  editComment: {
    does: 'Changes a comment to which nobody has replied.',
    needs: 'To have written it.',
    body: commentTextRequest,
    answer: CommentView,
  },
  removeComment: {
    does: 'Removes a comment.',
    needs: 'To have written it, or to remove things there.',
    answer: nothing,
  },
  resolveComment: {
    does: 'Marks a thread as resolved, or opens it again.',
    needs: 'To comment there.',
    body: resolvedRequest,
    answer: nothing,
  },
  reach: {
    does: 'Whether those whom a text names, and those who read it, can open what they would have to.',
    needs: 'To comment there, or to change it.',
    body: reachRequest,
    answer: ReachView,
  },
} as const satisfies Readonly<Record<string, Route>>
