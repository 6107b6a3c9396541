import type { JudgeRowsRequest } from '#contract/board-requests.ts'
import type { BoardInfo, ColumnView } from '#contract/views/boards.ts'
import { fold } from '#core/base/fold-words.ts'
import { type Guess, guessedKind, settingsFor, type Written, writtenAs } from '#core/boards/guess.ts'
import type { KindName, Usage } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import { keyKinds } from '#core/boards/row-key.ts'
import { nameColumn, sectionColumn } from '#core/boards/view.ts'
import { isSameName } from '#core/boards/words.ts'
import type { Table } from '../../../workers/table.ts'

/** What a column of a table is on the board: a column that is there, a new one, or nothing. */
export interface MappedColumn extends Written {
  readonly to: 'nothing' | 'new' | 'column'
  /** Of the board: its id, the name or the section; empty otherwise. */
  readonly column: string
  /** Of what kind a new one is. */
  readonly as: KindName
  readonly settings: unknown
}

export interface Mapped {
  readonly columns: readonly MappedColumn[]
  /** Which of them tells rows apart. */
  readonly key: number | null
}

interface Given {
  readonly table: Table
  readonly info: BoardInfo
  readonly usage: Usage
  readonly mayArrange: boolean
}

export const textsOf = ({ rows }: Pick<Table, 'rows'>, column: number): string[] =>
  rows.map(cells => cells[column] ?? '')

/** What columns can be brought into, besides new ones. One that the board numbers only finds rows. */
export const targetsOf = (info: BoardInfo): readonly ColumnView[] =>
  info.columns.filter(({ kind }) => isBroughtIn(kind) || kind === 'serial number')

const isBroughtIn = (kind: KindName): boolean => kindOf({ kind }).isWritten && kind !== 'file'

/** By the names of the columns; what is not known by its name becomes a new column, of the kind that its cells are. */
export function mappedFor(given: Given): Mapped {
  const { table, info, usage, mayArrange } = given
  const taken = new Set<string>()
  const columns = table.heads.map((head, index): MappedColumn => {
    const texts = textsOf(table, index)
    const written = writtenAs(texts, usage)
    const guess = guessedKind(texts, { ...usage, ...written })
    const column = targetFor(info, head)
    const isOther = info.columns.some(each => isSameName(each.name, head))
    const isEmpty = head.trim() === '' || texts.every(text => text.trim() === '')
    if (column !== undefined && !taken.has(column)) {
      taken.add(column)
      return { to: 'column', column, ...formOf(guess), ...written }
    }
    const to = isOther || isEmpty || !mayArrange ? 'nothing' : 'new'
    return { to, column: '', ...formOf(guess), ...written }
  })
  const named = taken.has(nameColumn) ? columns : withName(columns)
  return { columns: named, key: keyFor(named, given) }
}

const formOf = ({ kind, settings }: Guess) => ({ as: kind, settings })

function targetFor(info: BoardInfo, head: string): string | undefined {
  const known = targetsOf(info).find(each => isSameName(each.name, head))?.id
  if (known !== undefined) return known
  if (isSameName(head, 'Name')) return nameColumn
  return isSameName(head, 'Section') && info.sections.length > 0 ? sectionColumn : undefined
}

/** Rows have names: the first column of texts is it where none says so. */
function withName(columns: readonly MappedColumn[]): readonly MappedColumn[] {
  const at = columns.findIndex(each => each.to !== 'column' && each.as === 'text')
  return columns.map((each, index) => (index === at ? { ...each, to: 'column', column: nameColumn } : each))
}

/** The number that the board gave, or the name where each is another one. */
function keyFor(columns: readonly MappedColumn[], { table, info }: Given): number | null {
  const serial = columns.findIndex(({ column }) => kindOfTarget(info, column) === 'serial number')
  if (serial !== -1 && textsOf(table, serial).some(text => text.trim() !== '')) return serial
  const name = columns.findIndex(({ column }) => column === nameColumn)
  if (name === -1) return null
  const names = textsOf(table, name).map(text => fold(text.trim()))
  return new Set(names).size === names.length ? name : null
}

const kindOfTarget = (info: BoardInfo, column: string): KindName | undefined =>
  info.columns.find(each => each.id === column)?.kind

/** The columns by which rows can be told apart. */
export const keysAmong = ({ columns }: Mapped, info: BoardInfo): number[] =>
  columns.flatMap(({ to, column }, index) => {
    const kind = kindOfTarget(info, column)
    const isKey = to === 'column' && (column === nameColumn || (kind !== undefined && keyKinds.has(kind)))
    return isKey ? [index] : []
  })

/** A column is brought into one column of the board, and each of these is taken from one. */
export function withTarget(
  { columns, key }: Mapped,
  index: number,
  target: Pick<MappedColumn, 'to' | 'column'>,
): Mapped {
  const next = columns.map((each, nth) => {
    if (nth === index) return { ...each, ...target }
    return target.to === 'column' && each.column === target.column
      ? { ...each, to: 'nothing' as const, column: '' }
      : each
  })
  return { columns: next, key: key !== null && next[key]?.to === 'column' ? key : null }
}

interface NewColumn {
  readonly index: number
  readonly as: KindName
  readonly texts: readonly string[]
}

/** With a column of the table as a new one of some kind. */
export const withKind = (mapped: Mapped, { index, as, texts }: NewColumn, usage: Usage): Mapped => ({
  key: mapped.key === index ? null : mapped.key,
  columns: mapped.columns.map((each, nth) =>
    nth === index
      ? { ...each, to: 'new', column: '', as, settings: settingsFor(as, texts, { ...usage, ...each }) }
      : each,
  ),
})

/** Kinds that a new column can be of, so that what is in the table comes into it. */
export const newKinds = (kinds: readonly KindName[]): KindName[] => kinds.filter(isBroughtIn)

/** Which columns of the table go to the server, by their place. */
export const sentOf = ({ columns, key }: Mapped, info: BoardInfo): number[] =>
  columns.flatMap(({ to, column }, index) =>
    to === 'nothing' || (kindOfTarget(info, column) === 'serial number' && index !== key) ? [] : [index],
  )

/** What the server is told of them. */
export const requestFor = (mapped: Mapped, info: BoardInfo): Pick<JudgeRowsRequest, 'columns' | 'key'> => {
  const sent = sentOf(mapped, info)
  return {
    columns: sent.map(index => {
      const { to, column, as, settings, decimal, isDayFirst } = mapped.columns[index] as MappedColumn
      return { column: to === 'new' ? null : column, as, settings: settings as object, decimal, isDayFirst }
    }),
    key: mapped.key === null ? null : sent.indexOf(mapped.key),
  }
}

/** Whether it matters how numbers or dates are written in a column. */
export function writtenMatters(
  { to, column, as }: MappedColumn,
  info: BoardInfo,
): 'decimal' | 'day' | undefined {
  const kind = to === 'new' ? as : kindOfTarget(info, column)
  if (kind === 'number') return 'decimal'
  return kind === 'date' || kind === 'period' ? 'day' : undefined
}

/** Rows whose key an earlier row has already. */
export function repeatedRows({ rows }: Pick<Table, 'rows'>, { key }: Mapped): ReadonlySet<number> {
  const repeated = new Set<number>()
  if (key === null) return repeated
  const seen = new Set<string>()
  for (const [index, cells] of rows.entries()) {
    const text = fold((cells[key] ?? '').trim())
    if (text === '') continue
    if (seen.has(text)) repeated.add(index)
    seen.add(text)
  }
  return repeated
}
