import { Type } from '@sinclair/typebox'
import { cellValue, columnKind, columnOrPart, columnSettings, shownColumns, viewState } from './boards.ts'
import { id, line, made, name, oneOf, orNull, ref, strict, text, type View, wholeNumber } from './pieces.ts'

/** What is asked of boards: cells and rows as they are to be, tables that come in, and ways to look. */

/** A cell as it is to be: of a row that is there or new, and a column or the row's name. */
const cellToWrite = Type.Object(
  {
    row: ref('nodes'),
    column: Type.String({ pattern: '^[a-z0-9-]{1,40}$' }),
    value: cellValue,
    /** The version of the row that its writer saw. */
    seen: Type.Number(),
  },
  strict,
)
export const cellsRequest = Type.Object(
  {
    /** New rows: each needs a name among the cells. */
    rows: Type.Optional(
      Type.Array(
        Type.Object(
          { row: made('nodes'), section: orNull(id('sections')), order: Type.Optional(Type.Number()) },
          strict,
        ),
        { maxItems: 5000 },
      ),
    ),
    cells: Type.Array(cellToWrite, { minItems: 1, maxItems: 10_000 }),
    /** Whether what cannot be written is left as it is, and the rest written. */
    isPartial: Type.Optional(Type.Boolean()),
  },
  strict,
)
export type CellsRequest = View<typeof cellsRequest>

/** Rows as they are to stand: before another one, or behind all of their section. */
export const putRowsRequest = Type.Object(
  {
    rows: Type.Array(id('nodes'), { minItems: 1, maxItems: 500, uniqueItems: true }),
    before: orNull(id('nodes')),
    section: orNull(id('sections')),
  },
  strict,
)
export type PutRowsRequest = View<typeof putRowsRequest>

/** Rows of a table from elsewhere, with what its columns are on the board. */
const columnOfTable = Type.Object(
  {
    /** A column, the name or the section; `null` for one that is still to be made. */
    column: orNull(columnOrPart),
    as: columnKind,
    settings: columnSettings,
    decimal: oneOf('.', ','),
    isDayFirst: Type.Boolean(),
  },
  strict,
)
const judgedRows = {
  columns: Type.Array(columnOfTable, { minItems: 1, maxItems: 100 }),
  /** Which of them tells rows apart, so that those that are there are found again. */
  key: orNull(Type.Integer({ minimum: 0, maximum: 99 })),
  rows: Type.Array(Type.Array(text(50_000), { maxItems: 100 }), { minItems: 1, maxItems: 1000 }),
}
export const judgeRowsRequest = Type.Object(judgedRows, strict)
export type JudgeRowsRequest = View<typeof judgeRowsRequest>
export const importRowsRequest = Type.Object(
  {
    ...judgedRows,
    /** Why, as the history tells it. */
    reason: text(500),
    /** When they were judged: what somebody else wrote since is left as it is. */
    seen: Type.Number(),
  },
  strict,
)
export type ImportRowsRequest = View<typeof importRowsRequest>

/** Where a view begins to show, and how it looks at a board: as it stands in an address. */
export const viewQuery = Type.Object(
  {
    as: Type.Optional(line(20)),
    by: Type.Optional(line(60)),
    where: Type.Optional(Type.String({ maxLength: 6000 })),
    sort: Type.Optional(line(400)),
    group: Type.Optional(line(60)),
    columns: Type.Optional(Type.String({ maxLength: 6000 })),
  },
  strict,
)
export type ViewQuery = View<typeof viewQuery>

export const rowsQuery = Type.Object(
  { ...viewQuery.properties, from: Type.Optional(wholeNumber), count: Type.Optional(wholeNumber) },
  strict,
)
export type RowsQuery = View<typeof rowsQuery>

/** A view of one's own: a new one, or another state of one that is there. */
export const ownViewRequest = Type.Object(
  { view: orNull(Type.String({ pattern: '^[a-z0-9-]{1,40}$' })), name, state: viewState },
  strict,
)
export type OwnViewRequest = View<typeof ownViewRequest>

/** In order; a column that is named in neither is a new one, and is shown behind the others. */
export const ownColumnsRequest = Type.Object(
  {
    columns: orNull(
      Type.Object({ shown: shownColumns, hidden: Type.Array(columnOrPart, { maxItems: 100 }) }, strict),
    ),
  },
  strict,
)
export type OwnColumnsRequest = View<typeof ownColumnsRequest>

/** In which cell one writes; in none any more. */
export const editedCellRequest = Type.Object(
  { cell: orNull(Type.Object({ row: id('nodes'), column: columnOrPart }, strict)) },
  strict,
)
export type EditedCellRequest = View<typeof editedCellRequest>

export const conversionRequest = Type.Object({ as: columnKind, settings: columnSettings }, strict)
export type ConversionRequest = View<typeof conversionRequest>
