import { rowOf } from '../../base/collection.ts'
import { isSame } from '../../base/same.ts'
import { ok, refused } from '../../base/result.ts'
import { checkColumn } from '../../access/columns.ts'
import { isWrittenAlike } from '../../boards/conversion.ts'
import type { KindName } from '../../boards/kind.ts'
import { kindOf } from '../../boards/kinds/all.ts'
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
  readonly as: KindName
  readonly settings: object
  readonly order: number
  readonly viewers: readonly Principal[] | null
  readonly editors: readonly Principal[] | null
}

/** Columns are arranged with the board; who sees or edits one is decided by those who share there. */
export const createColumn: EditRule<CreateColumn> = {
  kind: 'column.create',
  lacks: (context, edit) => lacksColumnChange(context, null, created(edit)) ?? unknownNames(context, edit),
  apply: (context, edit) => {
    const { state } = context.now
    const { column: id, board } = edit
    if (rowOf(state.nodes, board)?.kind !== 'board') return refused({ code: 'unknown', what: 'place' })
    if (isTaken(state, 'columns', id)) return refused({ code: 'already-there', what: 'id' })
    const wrong = wrongNames(edit) ?? wrongSettings(edit.as, edit.settings)
    if (wrong !== undefined) return refused(wrong)
    return ok([{ table: 'columns', id, before: null, after: created(edit) }])
  },
}

const created = ({ column: id, as: kind, ...edit }: EditOf<'column.create'>): BoardColumn => {
  const { board, name, settings, order, viewers, editors } = edit
  return { id, board, name, kind, settings, former: [], order, viewers, editors }
}

/** What a kind of column says of its settings, as a refusal. */
function wrongSettings(kind: KindName, settings: object): Refusal | undefined {
  const why = kindOf({ kind }).settings.wrong(settings)
  return why === undefined ? undefined : { code: 'wrong-settings', why }
}

export interface ChangeColumn {
  readonly kind: 'column.change'
  readonly column: ColumnId
  readonly name?: string | undefined
  /** Another kind needs its settings. */
  readonly as?: KindName | undefined
  readonly settings?: object | undefined
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
    const after = changed(before, edit)
    const wrong = wrongNames(edit) ?? wrongSettings(after.kind, after.settings)
    if (wrong !== undefined) return refused(wrong)
    if (after.former.length > kindsAtMost) return refused({ code: 'wrong-settings', why: tooOften })
    return ok([{ table: 'columns', id: before.id, before, after }])
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

/** So often a column becomes another kind: each cell is read through what it was. */
const kindsAtMost = 20
const tooOften = 'This column has become another kind too often. Create a new one.'

const changed = (before: BoardColumn, edit: EditOf<'column.change'>): BoardColumn => ({
  ...before,
  ...kindAfter(before, edit),
  name: edit.name ?? before.name,
  order: edit.order ?? before.order,
  viewers: edit.viewers === undefined ? before.viewers : edit.viewers,
  editors: edit.editors === undefined ? before.editors : edit.editors,
})

function kindAfter(
  before: BoardColumn,
  { as: kind = before.kind, settings = before.settings }: EditOf<'column.change'>,
): Pick<BoardColumn, 'kind' | 'settings' | 'former'> {
  const next = { kind, settings }
  return { ...next, former: formerAfter(before, next) }
}

/** With another kind, what it was is remembered, also by an undo: some cells are written as that. */
export const formerAfter = (
  { kind, settings, former }: BoardColumn,
  next: Pick<BoardColumn, 'kind' | 'settings'>,
): BoardColumn['former'] =>
  isWrittenAlike({ kind, settings }, next) ? former : [...former, { kind, settings }]

const everyName = ({ viewers, editors }: Named) => [...(viewers ?? []), ...(editors ?? [])]

const unknownNames = (context: Context, named: Named): Refusal | undefined =>
  everyName(named).flatMap(each => unknownPrincipal(context, each) ?? [])[0]

/** Groups with guests are for limits, here as with grants. */
const wrongNames = (named: Named): Refusal | undefined =>
  everyName(named).some(each => each === 'guests' || each === 'anyone') ? { code: 'limits-only' } : undefined
