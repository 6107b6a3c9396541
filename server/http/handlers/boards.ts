import type { Parts } from '../../parts.ts'
import { writeCellsOf } from '../../services/boards/cells.ts'
import {
  commentsView,
  editComment,
  reachView,
  removeComment,
  resolveComment,
  writeComment,
} from '../../services/boards/comments.ts'
import { conversionView } from '../../services/boards/conversion.ts'
import { boardCsv } from '../../services/boards/export.ts'
import { importRows, judgeRows } from '../../services/boards/import.ts'
import { rowHistory } from '../../services/boards/history.ts'
import {
  deleteOwnView,
  editCell,
  editedCells,
  saveOwnColumns,
  saveOwnView,
} from '../../services/boards/own.ts'
import { putRows } from '../../services/boards/row-order.ts'
import { boardInfo, boardRows, boardTotals, rowDetail } from '../../services/boards/rows.ts'
import type { WorkspaceHandlers } from '../mount.ts'

/** Boards, their rows, and what people say about them. */
export const boardHandlers = (parts: Parts) =>
  ({
    board: (asker, { params }) => boardInfo(parts, asker, params.id),
    boardRows: (asker, { params, query }) => boardRows(parts, asker, { id: params.id, query }),
    boardTotals: (asker, { params, query }) => boardTotals(parts, asker, { id: params.id, query }),
    boardCsv: (asker, { params, query, response }) => {
      response.attachment('board.csv')
      return boardCsv(parts, asker, { id: params.id, query })
    },
    conversion: (asker, { params, body }) => conversionView(parts, asker, { ...params, request: body }),
    writeCells: (asker, { params, body }) => writeCellsOf(parts, asker, { id: params.id, request: body }),
    putRows: (asker, { params, body }) => putRows(parts, asker, { id: params.id, request: body }),
    judgeRows: (asker, { params, body }) => judgeRows(parts, asker, { id: params.id, request: body }),
    importRows: (asker, { params, body }) => importRows(parts, asker, { id: params.id, request: body }),
    saveOwnView: (asker, { params, body }) => saveOwnView(parts, asker, { id: params.id, request: body }),
    deleteOwnView: (asker, { params }) => deleteOwnView(parts, asker, params),
    saveOwnColumns: (asker, { params, body }) =>
      saveOwnColumns(parts, asker, { id: params.id, request: body }),
    editedCells: (asker, { params }) => editedCells(parts, asker, params.id),
    editCell: (asker, { params, body }) => editCell(parts, asker, { id: params.id, request: body }),
    row: (asker, { params }) => rowDetail(parts, asker, params.id),
    rowHistory: (asker, { params }) => rowHistory(parts, asker, params.id),
    comments: (asker, { params }) => commentsView(parts, asker, params.id),
    writeComment: (asker, { params, body }) => writeComment(parts, asker, { id: params.id, request: body }),
    editComment: (asker, { params, body }) => editComment(parts, asker, { ...params, text: body.text }),
    removeComment: (asker, { params }) => removeComment(parts, asker, params),
    resolveComment: (asker, { params, body }) => resolveComment(parts, asker, { ...params, ...body }),
    reach: (asker, { params, body }) => reachView(asker, { id: params.id, request: body }),
  }) satisfies Partial<WorkspaceHandlers>
