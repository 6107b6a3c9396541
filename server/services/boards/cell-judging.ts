import { columnRights, writesRow } from '#core/access/columns.ts'
import { actionsAt, check } from '#core/access/evaluate.ts'
import { placeOf } from '#core/access/place.ts'
import { subjectOf } from '#core/access/subject.ts'
import { rowOf } from '#core/base/collection.ts'
import type { ColumnId, NodeId, PersonId } from '#core/base/ids.ts'
import { isSame } from '#core/base/same.ts'
import { cellValue } from '#core/boards/data.ts'
import type { CellValue, Usage } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import { nameColumn } from '#core/boards/view.ts'
import { has, noActions } from '#core/levels/action.ts'
import type { BoardColumn } from '#core/rules/column.ts'
import type { Snapshot } from '#core/state/state.ts'
import type { StoredCell } from '../../store/content/row-cells.ts'
import { type Asker, knowsPerson, maySee } from '../viewer/asker.ts'
import { usageOfAll } from './usage.ts'

/** A cell as somebody wants it to be. */
export interface Cell {
  readonly row: NodeId
  readonly column: string
  readonly value: CellValue
  /** When its row was written last, as its author saw it. */
  readonly seen: number
  /** Whether its row is made with it. */
  readonly isNew: boolean
}

export interface Verdict {
  /** Why it cannot be so; a sentence. */
  readonly why?: string
  /** What somebody else wrote there meanwhile. */
  readonly conflict?: StoredCell
  /** Nothing would be another. */
  readonly isSame?: boolean
}

export interface CellJudging {
  (cell: Cell, there: StoredCell | undefined): Verdict
  /** Which of a column's forms is written now. */
  readonly formOf: (column: string) => number
}

const unknownRow = 'There is no such row that you know of.'
const unknownColumn = 'There is no such column that you know of.'

/** Who may write which cells of a board, and what may stand in them: asked once for each row and column. */
export function cellJudging(asker: Asker, board: NodeId): CellJudging {
  const { snapshot, person } = asker
  const { state } = snapshot
  const subject = subjectOf(snapshot, person)
  const columns =
    subject === undefined
      ? new Map<ColumnId, { readonly edits: boolean }>()
      : columnRights(snapshot, subject, board)
  const rows = new Map<NodeId, 'unknown' | 'read' | 'write'>()
  const accessTo = (row: NodeId) => {
    const known = rows.get(row)
    if (known !== undefined) return known
    const place = placeOf(snapshot, row)
    const held =
      subject === undefined || place === undefined ? noActions : actionsAt(snapshot, subject, place)
    const isThere = place?.node.parent === board && has(held, 'see')
    const found =
      !isThere || subject === undefined
        ? 'unknown'
        : writesRow(subject, held, place.node.maker)
          ? 'write'
          : 'read'
    rows.set(row, found)
    return found
  }
  const usage = usageOfAll(snapshot)
  const judge = (cell: Cell, there: StoredCell | undefined): Verdict => {
    const access = cell.isNew ? 'write' : accessTo(cell.row)
    if (access === 'unknown') return { why: unknownRow }
    if (cell.column === nameColumn) return judgedName(snapshot, cell, { person, access, there })
    const id = cell.column as ColumnId
    const column = rowOf(state.columns, id)
    const rights = columns.get(id)
    if (column === undefined || rights === undefined) return { why: unknownColumn }
    if (access === 'read') return { why: 'You cannot change this row.' }
    if (!rights.edits) return { why: `You cannot change the column ${column.name}.` }
    return judgedValue(asker, cell, { column, there, usage })
  }
  const formOf = (column: string) => rowOf(state.columns, column as ColumnId)?.former.length ?? 0
  return Object.assign(judge, { formOf })
}

interface Named {
  readonly person: PersonId
  readonly access: 'read' | 'write'
  readonly there: StoredCell | undefined
}

interface ThereInColumn {
  readonly column: BoardColumn
  readonly there: StoredCell | undefined
  readonly usage: Usage
}

function judgedValue(asker: Asker, cell: Cell, { column, there, usage }: ThereInColumn): Verdict {
  const now = there === undefined ? null : cellValue(column, there, usage)
  if (isSame(now, cell.value)) return { isSame: true }
  const why = wrongValue(asker, cell, { column, before: now })
  if (why !== undefined) return { why }
  return isUnseen(there, cell, asker.person)
    ? { why: unseen, conflict: [now, there[1], there[2], there[3]] }
    : {}
}

const unseen = 'Somebody else wrote in this cell meanwhile.'

/** Whether somebody else wrote there since its author looked; what one wrote oneself, in another tab too, one knows. */
const isUnseen = (there: StoredCell | undefined, { seen }: Cell, person: PersonId): there is StoredCell =>
  there !== undefined && there[1] > seen && there[2] !== person

function judgedName({ state }: Snapshot, cell: Cell, { access, there, person }: Named): Verdict {
  const { row, value, isNew } = cell
  const name = typeof value === 'string' ? value.trim() : ''
  if (name === '' || name.length > 200) return { why: 'A row has a name of 200 characters at most.' }
  if (isNew) return {}
  if (access === 'read') return { why: 'You cannot change this row.' }
  const now = rowOf(state.nodes, row)?.name ?? ''
  if (now === name) return { isSame: true }
  return isUnseen(there, cell, person) ? { why: unseen, conflict: [now, there[1], there[2], 0] } : {}
}

interface InColumn {
  readonly column: BoardColumn
  readonly before: CellValue
}

/** What stands there already may stay, also where it could not be written now. */
function wrongValue(
  asker: Asker,
  { row, value, isNew }: Cell,
  { column, before }: InColumn,
): string | undefined {
  const { snapshot } = asker
  const kind = kindOf(column)
  if (!kind.isWritten) return `The column ${column.name} is not written: the board fills it.`
  if (value === null) return undefined
  if (!kind.fits(value, column.settings)) return `This is not what the column ${column.name} holds.`
  const coming = Array.isArray(value)
    ? (value as readonly string[]).filter(each => !(Array.isArray(before) && before.includes(each)))
    : []
  const place = isNew ? column.board : row
  switch (column.kind) {
    case 'person':
      return coming.every(
        each => knowsPerson(asker, each as PersonId) && has(check(snapshot, each as PersonId, place), 'see'),
      )
        ? undefined
        : 'Only people who can open this row can be named in it.'
    case 'place':
      return coming.every(each => maySee(asker, each as NodeId))
        ? undefined
        : 'There is no such place that you can open.'
    case 'file':
      return coming.every(each => isFileIn(snapshot, each as NodeId, row))
        ? undefined
        : 'A file has to lie in its row.'
    default:
      return undefined
  }
}

function isFileIn({ state }: Snapshot, file: NodeId, row: NodeId): boolean {
  const node = rowOf(state.nodes, file)
  return node?.kind === 'file' && node.parent === row
}
