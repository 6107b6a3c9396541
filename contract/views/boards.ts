import { Type } from '@sinclair/typebox'
import { cellValue, columnKind, columnSettings, viewState } from '../boards.ts'
import { oneOf, orNull, strict, type View, view } from '../pieces.ts'
import { instant } from '../terms.ts'
import { PlaceName, PrincipalName } from './names.ts'

/** A column of a board; whom it is restricted to is told to those who share there. */
export const ColumnView = view('ColumnView', {
  ...PlaceName.properties,
  kind: columnKind,
  settings: columnSettings,
  mine: oneOf('see', 'edit'),
  /** Whether the reader may edit it in rows that they may change. */
  isMine: Type.Boolean(),
  /** Its place among the columns: equal ones stand by name. */
  order: Type.Number(),
  isRestricted: Type.Boolean(),
  viewers: orNull(Type.Array(PrincipalName)),
  editors: orNull(Type.Array(PrincipalName)),
})
export type ColumnView = View<typeof ColumnView>

export const SectionView = view('SectionView', { ...PlaceName.properties, order: Type.Number() })
export type SectionView = View<typeof SectionView>

/** A way to look at a board: its own, or the reader's. */
export const SavedView = view('SavedView', {
  ...PlaceName.properties,
  order: Type.Number(),
  state: viewState,
})
export type SavedView = View<typeof SavedView>

export const ShownColumn = Type.Object({ column: Type.String(), width: orNull(Type.Number()) }, strict)

/** What a board is besides its rows. */
export const BoardInfo = view('BoardInfo', {
  columns: Type.Array(ColumnView),
  sections: Type.Array(SectionView),
  views: Type.Array(SavedView),
  /** The reader's own. */
  ownViews: Type.Array(SavedView),
  /** How the reader wants to see its columns where no view says so. */
  ownColumns: orNull(
    Type.Object({ shown: Type.Array(ShownColumn), hidden: Type.Array(Type.String()) }, strict),
  ),
  /** Days are those of the workspace: today is so many since 1970. */
  today: Type.Number(),
  timeZone: Type.String(),
})
export type BoardInfo = View<typeof BoardInfo>

const cells = Type.Record(Type.String(), cellValue)

export const RowView = view('RowView', {
  id: Type.String(),
  name: Type.String(),
  section: orNull(Type.String()),
  order: Type.Number(),
  /** When something that the reader sees of it was written last: who writes a cell says which they saw. */
  version: Type.Number(),
  cells,
  /** Whether the reader may write its name, and the cells of the columns that are theirs. */
  mayEdit: Type.Boolean(),
  /** Whether it has access of its own. */
  isOwnAccess: Type.Boolean(),
  comments: Type.Number(),
})
export type RowView = View<typeof RowView>

/** Names of people, places and files in cells, as far as their reader may know them. */
const names = Type.Record(Type.String(), Type.String())

export const RowsView = view('RowsView', {
  /** How many fit, and how many there are. */
  count: Type.Number(),
  all: Type.Number(),
  /** Those that fit, in this order: rows of one stand together. */
  groups: Type.Array(Type.Object({ key: Type.String(), count: Type.Number() }, strict)),
  /** Whether it shows more than to others, since the view is by a column that the reader does not see. */
  isPartial: Type.Boolean(),
  from: Type.Number(),
  rows: Type.Array(RowView),
  names,
})
export type RowsView = View<typeof RowsView>

const total = Type.Object(
  {
    filled: Type.Number(),
    sum: Type.Optional(Type.Number()),
    mean: Type.Optional(Type.Number()),
    least: Type.Optional(Type.Number()),
    greatest: Type.Optional(Type.Number()),
    different: Type.Optional(Type.Number()),
    options: Type.Optional(Type.Array(Type.Tuple([Type.String(), Type.Number()]))),
  },
  strict,
)
export const TotalsView = view('TotalsView', { totals: Type.Record(Type.String(), total) })
export type TotalsView = View<typeof TotalsView>

/** One row beside its board, with what it is read by. */
export const RowDetail = view('RowDetail', {
  board: PlaceName,
  /** Whether the reader sees the board itself, and not this row alone. */
  seesBoard: Type.Boolean(),
  columns: Type.Array(ColumnView),
  sections: Type.Array(SectionView),
  row: RowView,
  serial: orNull(Type.Number()),
  today: Type.Number(),
  timeZone: Type.String(),
  madeAt: instant,
  madeBy: orNull(Type.String()),
  names,
})
export type RowDetail = View<typeof RowDetail>

/** What was written in a row at once. */
export const RowChangeView = view('RowChangeView', {
  version: Type.Number(),
  at: instant,
  by: orNull(Type.String()),
  changes: Type.Array(
    Type.Object(
      {
        column: Type.String(),
        before: cellValue,
        after: cellValue,
        /** The same in words, as the column is now. */
        was: Type.String(),
        is: Type.String(),
        /** Whether it stands there still. */
        isLast: Type.Boolean(),
      },
      strict,
    ),
  ),
})
export type RowChangeView = View<typeof RowChangeView>

/** What came of writing cells: each row's new version, the ids of new rows, and what was left as it was. */
export const WrittenCells = view('WrittenCells', {
  versions: Type.Record(Type.String(), Type.Number()),
  made: Type.Record(Type.String(), Type.String()),
  left: Type.Array(Type.Object({ row: Type.String(), column: Type.String(), why: Type.String() }, strict)),
})
export type WrittenCells = View<typeof WrittenCells>

/** A cell that somebody else wrote meanwhile: what stands there now. */
export const CellConflict = Type.Object(
  {
    row: Type.String(),
    column: Type.String(),
    now: cellValue,
    by: orNull(Type.String()),
    at: Type.Number(),
  },
  strict,
)
export type CellConflict = View<typeof CellConflict>

export const CellRefusal = Type.Object(
  { row: Type.String(), column: Type.String(), why: Type.String() },
  strict,
)

/** What becomes of a row of a table; what is wrong with some of its cells, by their place in it. */
const JudgedRowView = Type.Object(
  {
    verdict: oneOf('new', 'changes', 'as it is', 'wrong'),
    says: Type.Array(Type.String()),
    faults: Type.Array(Type.Object({ column: Type.Integer(), why: Type.String() }, strict)),
  },
  strict,
)
export type JudgedRowView = View<typeof JudgedRowView>
export const JudgedRowsView = view('JudgedRowsView', { at: instant, rows: Type.Array(JudgedRowView) })
export type JudgedRowsView = View<typeof JudgedRowsView>

/** What becoming another kind does to a column's cells. */
export const ConversionView = view('ConversionView', {
  filled: Type.Number(),
  /** How many of these would be empty. */
  emptied: Type.Number(),
  /** The words of some of them. */
  examples: Type.Array(Type.String()),
})
export type ConversionView = View<typeof ConversionView>

export const EditedCellView = view('EditedCellView', {
  row: Type.String(),
  column: Type.String(),
  person: orNull(Type.String()),
})
export type EditedCellView = View<typeof EditedCellView>

export const CommentView = view('CommentView', {
  id: Type.String(),
  /** The comment that it replies to, or itself. */
  thread: Type.String(),
  /** `null` where it was removed. */
  text: orNull(Type.String()),
  at: instant,
  by: orNull(PlaceName),
  isEdited: Type.Boolean(),
  mayEdit: Type.Boolean(),
  mayRemove: Type.Boolean(),
  /** Of the first of a thread: who resolved it, `null` while it is open. */
  resolvedBy: orNull(Type.String()),
  isResolved: Type.Boolean(),
})
export type CommentView = View<typeof CommentView>

export const CommentsView = view('CommentsView', {
  comments: Type.Array(CommentView),
  mayComment: Type.Boolean(),
  /** Whom a text can mention, with whether they can open the place. */
  names: Type.Record(Type.String(), Type.String()),
})
export type CommentsView = View<typeof CommentsView>

/** Who would not be told by a mention, and how many readers cannot open what is linked. */
export const ReachView = view('ReachView', {
  people: Type.Array(Type.Object({ id: Type.String(), name: Type.String() }, strict)),
  /** `null` where the writer may not know who reads along. */
  readers: orNull(Type.Number()),
  places: Type.Array(Type.Object({ id: Type.String(), name: Type.String(), without: Type.Number() }, strict)),
})
export type ReachView = View<typeof ReachView>
