import { pino } from 'pino'
import type { ColumnId, NodeId } from '#core/base/ids.ts'
import { dayLength, writtenDay } from '#core/boards/days.ts'
import type { CellValue, KindName } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import { orderStep } from '#core/boards/order.ts'
import type { BoardColumn } from '#core/rules/column.ts'
import type { RecordChange } from '#core/state/state.ts'
import { createdNode } from '#core/changes/edits/node.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { largeOwner, nodeId } from '#demo/large.ts'
import { openParts } from '#server/assemble.ts'
import type { CellWrite, StoredCell } from '#server/store/content/row-cells.ts'
import { beginWriting } from '#server/store/database.ts'
import { writeRows } from '#server/store/rows.ts'
import { configFor } from './seeded.ts'

/** A board of a size, with twenty columns of all kinds, filled. */

export const board = 'board-large' as NodeId
export const rowsOfBoard = 100_000

const states = ['To ask', 'Asked', 'Waits', 'Granted', 'Refused'].map((name, nth) => ({
  id: `s${nth}`,
  name,
  mark: 'ring',
  isFinished: nth > 2,
}))
const tags = ['wet', 'dry', 'windy', 'fog'].map((name, nth) => ({ id: `t${nth}`, name }))
const number = { places: 2, unit: '', foot: 'sum' }

type Of = readonly [kind: KindName, settings: object, value: (nth: number) => CellValue]

/** Spread over all there is, the same each time. */
const some = (nth: number, salt: number, of: number): number =>
  ((nth * 2_654_435_761 + salt * 40_503) >>> 7) % of

const text = (salt: number): Of => [
  'text',
  {},
  nth => `Post ${some(nth, salt, 5000)} on the dyke, leaning ${some(nth, salt + 1, 90)}`,
]
const numbers = (salt: number): Of => ['number', number, nth => some(nth, salt, 1_000_000) / 100]
const today = Math.floor(Date.now() / dayLength)

const columnsOf: readonly Of[] = [
  ['serial number', { prefix: 'R-' }, () => null],
  ['state', { states }, nth => `s${some(nth, 1, 5)}`],
  ['tags', { tags }, nth => [`t${some(nth, 2, 2)}`, `t${2 + some(nth, 3, 2)}`]],
  ['person', { isSeveral: true }, nth => [`p${some(nth, 4, 90)}`]],
  ['date', { withTime: false }, nth => writtenDay(today - 400 + some(nth, 5, 800))],
  ['date', { withTime: true }, nth => (today - some(nth, 6, 800)) * dayLength + some(nth, 7, 1440) * 60_000],
  [
    'period',
    {},
    nth => {
      const from = today + some(nth, 8, 300)
      return [writtenDay(from), writtenDay(from + some(nth, 9, 20))]
    },
  ],
  ...[10, 11, 12, 13, 14].map(numbers),
  ...[20, 22, 24].map(text),
  ['checkbox', {}, nth => (some(nth, 30, 3) === 0 ? true : null)],
  ['link', {}, nth => `https://coast.example/posts/${some(nth, 31, 90_000)}`],
  ['place', {}, nth => [nodeId(some(nth, 32, 900))]],
  ['created', {}, () => null],
  ['updated', {}, () => null],
]

export const columnId = (nth: number): ColumnId => `board-column-${nth}` as ColumnId

export const columns = columnsOf.map(([kind, settings], nth): BoardColumn => ({
  id: columnId(nth),
  board,
  name: `${kind} ${nth}`,
  kind,
  settings,
  former: [],
  order: nth + 1,
  viewers: null,
  editors: null,
}))

export const rowId = (nth: number): NodeId => `row-${String(nth).padStart(7, '0')}` as NodeId
export const rowName = (nth: number): string => `Visit ${nth}`

/** What is written in a row, by column. */
export const valuesOf = (nth: number): [ColumnId, CellValue][] =>
  columnsOf.flatMap(([kind, , value], column): [ColumnId, CellValue][] =>
    kindOf({ kind }).isWritten ? [[columnId(column), value(nth)]] : [],
  )

const together = 2000

/** Puts the board into the first home of a large workspace that nobody uses yet. */
export async function seedBoard(dataDir: string): Promise<void> {
  const now = Date.now()
  const { parts, close } = await openParts({
    config: configFor(dataDir),
    log: pino({ level: 'silent' }),
    clock: () => now,
  })
  const { tables } = parts.writer
  const workspace = 'workspace-large' as never
  const by = { maker: largeOwner.person, madeAt: now - 1000 }
  const node = createdNode({ id: board, parent: nodeId(1), kind: 'board', name: 'Visits' }, by)
  const put = (table: 'nodes' | 'columns', after: BoardColumn | ContentNode) =>
    ({ table, id: after.id, before: null, after }) as unknown as RecordChange
  await beginWriting(tables.database, async transaction => {
    const write = (changes: RecordChange[]) =>
      writeRows(tables, [{ kind: 'records', workspace, changes }], transaction)
    await write([
      put('nodes', { ...node, serial: rowsOfBoard }),
      ...columns.map(each => put('columns', each)),
    ])
    for (let from = 0; from < rowsOfBoard; from += together) {
      const rows = Array.from({ length: Math.min(together, rowsOfBoard - from) }, (_, at) => from + at)
      await write(
        rows.map(nth => {
          const is = { id: rowId(nth), parent: board, kind: 'row', name: rowName(nth) } as const
          return put('nodes', { ...createdNode(is, by), order: (nth + 1) * orderStep, serial: nth + 1 })
        }),
      )
      await tables.rowCells.bulkCreate(
        rows.map(nth => {
          const cells = valuesOf(nth).flatMap(([column, value]) =>
            value === null ? [] : [[column, [value, by.madeAt, by.maker, 0] as StoredCell] as const],
          )
          const row: Pick<CellWrite, 'node' | 'version'> = { node: rowId(nth), version: 1 }
          return { workspace, ...row, cells: JSON.stringify(Object.fromEntries(cells)) }
        }),
        { transaction },
      )
    }
  })
  await close()
}
