import { cellValue } from '#core/boards/data.ts'
import { asWritten } from '#contract/cells.ts'
import type { JudgeRowsRequest } from '#contract/board-requests.ts'
import type { JudgedRowView } from '#contract/views/boards.ts'
import { check } from '#core/access/evaluate.ts'
import { rowOf } from '#core/base/collection.ts'
import type { NodeId, SectionId } from '#core/base/ids.ts'
import { ok, refused, type Result } from '#core/base/result.ts'
import { isSame } from '#core/base/same.ts'
import type { CellValue, Usage } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import { keyFrom, keyOfText } from '#core/boards/row-key.ts'
import { nameColumn } from '#core/boards/view.ts'
import { isSameName } from '#core/boards/words.ts'
import type { Edit } from '#core/changes/edit.ts'
import type { BoardColumn } from '#core/rules/column.ts'
import { has } from '#core/levels/action.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { askBoard } from '../../boards/asking.ts'
import type { Parts } from '../../parts.ts'
import { cellsOf, type StoredCell, type StoredCells } from '../../store/content/row-cells.ts'
import type { Asker } from '../viewer/asker.ts'
import { type CellJudging, cellJudging } from './cell-judging.ts'
import type { Field, Fields } from './import-fields.ts'
import { mayArrange } from './rows.ts'
import { usageOfAll } from './usage.ts'

/** What would become of a row of a table. */
export interface Planned {
  readonly view: JudgedRowView
  readonly index: number
  /** The one on the board that it is. */
  readonly row: NodeId | undefined
  readonly section: SectionId | null
  readonly move: Edit | undefined
  readonly cells: readonly { readonly column: string; readonly value: CellValue }[]
}

interface Given {
  readonly fields: Fields
  readonly request: JudgeRowsRequest
}

/** A way to judge the rows of a table, one by one. */
export async function judging(
  parts: Parts,
  asker: Asker,
  { fields, request }: Given,
): Promise<(cells: readonly string[], index: number) => Planned> {
  const matches = await matchesFor(parts, { fields, request })
  const nodes = [...new Set(matches.flatMap(each => ('row' in each && each.row !== null ? [each.row] : [])))]
  const stored = new Map(
    (await cellsOf(parts.writer.tables, { workspace: asker.workspace, nodes })).map(each => [
      each.node,
      each.cells,
    ]),
  )
  const reading: Reading = {
    ...fields,
    asker,
    judge: cellJudging(asker, fields.board),
    usage: usageOfAll(asker.snapshot),
    mayAdd: has(check(asker.snapshot, asker.person, fields.board), 'add'),
    mayMove: mayArrange(asker, fields.board),
  }
  return (cells, index) => {
    const match = matches[index] ?? { row: null }
    if ('why' in match) return wrong(index, [{ column: request.key ?? 0, why: match.why }])
    if (match.row === null && !reading.mayAdd)
      return wrong(index, [{ column: request.key ?? 0, why: 'You cannot add rows here.' }])
    const node = match.row === null ? undefined : rowOf(asker.snapshot.state.nodes, match.row)
    const there = node === undefined ? undefined : { node, cells: stored.get(node.id) ?? {} }
    return planFor(reading, { cells: cells.map(asWritten), index, there })
  }
}

interface Reading extends Fields {
  readonly asker: Asker
  readonly judge: CellJudging
  readonly usage: Usage
  readonly mayAdd: boolean
  readonly mayMove: boolean
}

type Fault = JudgedRowView['faults'][number]

function wrong(index: number, faults: readonly Fault[]): Planned {
  const says = faults.map(each => each.why)
  const view = { verdict: 'wrong', says: [...new Set(says)], faults: [...faults] } as const
  return { view, index, row: undefined, section: null, move: undefined, cells: [] }
}

/** The row that has a key; none, or why that cannot be said. */
type Match = { readonly row: NodeId | null } | { readonly why: string }

async function matchesFor(parts: Parts, { fields, request }: Given): Promise<Match[]> {
  const { key: at, rows } = request
  const field = at === null ? undefined : fields.fields[at]
  if (at === null || field === undefined) return rows.map(() => ({ row: null }))
  const keys = rows.map(cells => keyIn(field, asWritten(cells[at] ?? '')))
  const found = await askBoard<'keys'>(parts.boards.thread, fields.board, {
    kind: 'keys',
    looking: fields.looked.looking,
    column: field.of === 'column' ? field.column.id : nameColumn,
    keys: keys.map(key => key ?? ''),
  })
  const seen = new Set<string | number>()
  return keys.map((key, index): Match => {
    if (key === undefined) return { why: 'Without what tells rows apart it cannot be found on the board.' }
    if (seen.has(key)) return { why: 'An earlier row is the same one.' }
    seen.add(key)
    const [first = null, second] = (found[index] ?? []) as NodeId[]
    if (second !== undefined) return { why: 'More than one row of the board is this one.' }
    const isNumbered = field.of === 'column' && field.column.kind === 'serial number'
    if (first === null && isNumbered)
      return { why: 'No row has this number. New rows get theirs from the board.' }
    return { row: first }
  })
}

const keyIn = (field: Field, text: string): string | number | undefined =>
  field.of === 'column' ? keyFrom(text, field.column, field.usage) : keyOfText(text)

interface Row {
  readonly cells: readonly string[]
  readonly index: number
  readonly there: { readonly node: ContentNode; readonly cells: StoredCells } | undefined
}

/** A cell that is to be another. */
interface Coming {
  readonly column: string
  readonly value: CellValue
  /** As it is told. */
  readonly says: string
}

function planFor(reading: Reading, row: Row): Planned {
  const { index, there } = row
  const { coming, faults } = cellsComing(reading, row)
  const { section, move, fault } = sectionFor(reading, row)
  const all = [...faults, ...(fault === undefined ? [] : [fault])]
  const isNamed = there !== undefined || coming.some(each => each.column === nameColumn)
  if (all.length === 0 && !isNamed)
    all.push({ column: placeOf(reading, 'name'), why: 'A new row needs a name.' })
  if (all.length > 0) return wrong(index, all)
  const says = [
    ...(there === undefined ? ['New row.'] : coming.map(each => each.says)),
    ...(move === undefined ? [] : [`Goes into ${row.cells[placeOf(reading, 'section')]?.trim()}.`]),
  ]
  return {
    view: { verdict: there === undefined ? 'new' : verdictOn(says), says, faults: [] },
    index,
    row: there?.node.id,
    section,
    move,
    cells: coming.filter(each => each.column !== stillToMake).map(({ column, value }) => ({ column, value })),
  }
}

const verdictOn = (says: readonly string[]) => (says.length === 0 ? 'as it is' : 'changes')

function cellsComing(reading: Reading, { cells, there }: Row) {
  const faults: Fault[] = []
  const coming: Coming[] = []
  for (const [column, field] of reading.fields.entries()) {
    const cell = cellComing(reading, { field, text: cells[column] ?? '', there })
    if (!cell.ok) faults.push({ column, why: cell.error })
    else if (cell.value !== undefined) coming.push(cell.value)
  }
  return { faults, coming }
}

const placeOf = ({ fields }: Reading, of: Field['of']): number =>
  Math.max(
    0,
    fields.findIndex(each => each.of === of),
  )

const stillToMake = ''

interface InCell {
  readonly field: Field
  readonly text: string
  readonly there: Row['there']
}

/** What a cell changes, if it does; an empty one does not. */
function cellComing(reading: Reading, { field, text, there }: InCell): Result<Coming | undefined, string> {
  if (text.trim() === '' || field.of === 'section') return ok(undefined)
  const column = columnIn(field)
  const stored = there?.cells[column]
  const read = field.of === 'name' ? nameIn(text, there) : valueIn(reading, { field, text, stored })
  if (!read.ok) return read
  if (read.value === undefined) return ok(undefined)
  const says = `${headOf(field)}: ${beforeIn(reading, field, there)} → ${text.trim()}`
  const coming = { column, value: read.value, says }
  const verdict = column === stillToMake ? {} : judged(reading, coming, there)
  if (verdict.isSame === true) return ok(undefined)
  return verdict.why === undefined ? ok(coming) : refused(verdict.why)
}

const columnIn = (field: Exclude<Field, { of: 'section' }>): string =>
  field.of === 'column' ? field.column.id : field.of === 'name' ? nameColumn : stillToMake

const judged = (
  { judge, board }: Reading,
  { column, value }: Coming,
  there: Row['there'],
): ReturnType<CellJudging> =>
  judge(
    {
      row: there?.node.id ?? board,
      column,
      value,
      seen: Number.POSITIVE_INFINITY,
      isNew: there === undefined,
    },
    there?.cells[column],
  )

function nameIn(text: string, there: Row['there']): Result<string | undefined, string> {
  const name = text.replaceAll(/[\s\p{Cc}]+/gu, ' ').trim()
  return ok(name === there?.node.name ? undefined : name)
}

interface Written {
  readonly field: Exclude<Field, { of: 'name' | 'section' }>
  readonly text: string
  readonly stored: StoredCell | undefined
}

/** What is as it would be written is left, also where its words do not say all of it. */
function valueIn(reading: Reading, { field, text, stored }: Written): Result<CellValue | undefined, string> {
  const form = field.of === 'column' ? field.column : field.form
  const { isWritten, parse, words } = kindOf(form)
  if (!isWritten) return ok(undefined)
  const now = field.of === 'column' ? valueOf(reading, field.column, stored) : null
  if (now !== null && words(now, form.settings, field.usage) === text.trim()) return ok(undefined)
  const read = parse(text, form.settings, field.usage)
  return read.ok && (read.value === null || isSame(read.value, now)) ? ok(undefined) : read
}

const valueOf = ({ usage }: Reading, column: BoardColumn, stored: StoredCell | undefined): CellValue =>
  stored === undefined ? null : cellValue(column, stored, usage)

const headOf = (field: Field): string =>
  field.of === 'column' ? field.column.name : field.of === 'name' ? 'Name' : 'New column'

function beforeIn(reading: Reading, field: Field, there: Row['there']): string {
  if (field.of === 'name') return there?.node.name ?? ''
  if (field.of !== 'column') return nothingThere
  const { column, usage } = field
  const now = valueOf(reading, column, there?.cells[column.id])
  return now === null ? nothingThere : kindOf(column).words(now, column.settings, usage).slice(0, 100)
}

const nothingThere = '(empty)'

interface Put {
  readonly section: SectionId | null
  readonly move?: Edit
  readonly fault?: Fault
}

/** In which section a new row stands, and into which one that is there goes. */
function sectionFor(reading: Reading, { cells, there }: Row): Put {
  const column = placeOf(reading, 'section')
  const name = reading.fields[column]?.of === 'section' ? (cells[column] ?? '').trim() : ''
  if (name === '') return { section: null }
  const section = reading.sections.find(each => isSameName(each.name, name))?.id
  if (section === undefined)
    return { section: null, fault: { column, why: `There is no section “${name.slice(0, 100)}”.` } }
  if (there === undefined || there.node.section === section) return { section }
  if (!reading.mayMove) return { section, fault: { column, why: 'You cannot move rows to another section.' } }
  const { id: node, order } = there.node
  return { section, move: { kind: 'node.order', node, order, section } }
}
