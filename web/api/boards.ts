import { api, mutation, query } from './api.ts'

/** Boards: what they hold, how they are looked at, and what people say about it. */
export const boardsApi = api.injectEndpoints({
  endpoints: build => ({
    board: query(build, 'board'),
    boardRows: query(build, 'boardRows'),
    boardTotals: query(build, 'boardTotals'),
    editedCells: query(build, 'editedCells'),
    row: query(build, 'row'),
    rowHistory: query(build, 'rowHistory'),
    comments: query(build, 'comments'),
    conversion: query(build, 'conversion'),
    reach: query(build, 'reach'),
    writeCells: mutation(build, 'writeCells', ['within', 'document']),
    putRows: mutation(build, 'putRows', ['within', 'document']),
    judgeRows: mutation(build, 'judgeRows'),
    importRows: mutation(build, 'importRows', ['within', 'document']),
    editCell: mutation(build, 'editCell'),
    saveOwnView: mutation(build, 'saveOwnView', ['own-board']),
    deleteOwnView: mutation(build, 'deleteOwnView', ['own-board']),
    saveOwnColumns: mutation(build, 'saveOwnColumns', ['own-board']),
    writeComment: mutation(build, 'writeComment', ['comments', 'within']),
    editComment: mutation(build, 'editComment', ['comments']),
    removeComment: mutation(build, 'removeComment', ['comments', 'within']),
    resolveComment: mutation(build, 'resolveComment', ['comments']),
  }),
})

export const {
  useBoardQuery,
  useBoardRowsQuery,
  useBoardTotalsQuery,
  useEditedCellsQuery,
  useRowQuery,
  useRowHistoryQuery,
  useCommentsQuery,
  useConversionQuery,
  useReachQuery,
  useWriteCellsMutation,
  usePutRowsMutation,
  useJudgeRowsMutation,
  useImportRowsMutation,
  useEditCellMutation,
  useSaveOwnViewMutation,
  useDeleteOwnViewMutation,
  useSaveOwnColumnsMutation,
  useWriteCommentMutation,
  useEditCommentMutation,
  useRemoveCommentMutation,
  useResolveCommentMutation,
} = boardsApi

/** Where what a view shows is to be had as CSV. */
export const csvAddress = (
  { slug, id }: { readonly slug: string; readonly id: string },
  view: Readonly<Record<string, string>>,
): string => {
  const search = new URLSearchParams(view).toString()
  return `/api/at/${slug}/nodes/${id}/board.csv${search === '' ? '' : `?${search}`}`
}
