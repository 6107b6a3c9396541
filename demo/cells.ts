import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { ColumnId, NodeId, PersonId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { writtenDay } from '#core/boards/days.ts'
import type { CellValue } from '#core/boards/kind.ts'
import { columnKinds } from '#core/boards/kinds/all.ts'
import type { State } from '#core/state/state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { personId, placeId } from './ids.ts'
import { columnId, rowId, transectBoards } from './plan-boards.ts'
import { createRandom, type Random } from './random.ts'
import { boards, type DemoBoard, type DemoCell, type DemoColumn } from './scenario/boards.ts'

/** What stands in the rows of the demo's boards: from the tables, or readings made from a fixed seed. */

export interface RowCells {
  readonly node: NodeId
  readonly by: PersonId
  readonly at: Instant
  readonly cells: Readonly<Record<ColumnId, CellValue>>
}

const dayLength = 86_400_000

export function demoCells(state: State, now: Instant): RowCells[] {
  const today = Math.floor(now / dayLength)
  const random = createRandom(26)
  return [
    ...boards.flatMap(board => cellsOf(state, { board, today, now })),
    ...transectBoards.flatMap(board => readings(state, { board, today, now, random })),
    ...winterCounts(state, { today, now, random }),
  ]
}

interface Filling {
  readonly board: DemoBoard
  readonly today: number
  readonly now: Instant
}

function cellsOf(state: State, { board, today, now }: Filling): RowCells[] {
  const columns = board.columns.filter(({ kind }) => columnKinds[kind].isWritten)
  return (board.rows ?? []).flatMap(({ name, cells }, index): RowCells[] => {
    const node = rowOf(state.nodes, rowId(board.board, name) as NodeId)
    if (node === undefined) return []
    const written = columns.flatMap((column, nth) => {
      const value = valueOf(column, cells[nth] ?? null, today)
      return value === null ? [] : [[columnId(board.board, column.name), value] as const]
    })
    const at = now - (3 + ((index * 5) % 40)) * dayLength
    return [{ node: node.id, by: node.maker, at, cells: Object.fromEntries(written) }]
  })
}

/** Days from today, people by their keys, places by their paths. */
function valueOf({ kind }: DemoColumn, cell: DemoCell, today: number): CellValue {
  if (cell === null) return null
  switch (kind) {
    case 'date':
      return writtenDay(today + Number(cell))
    case 'period':
      return (cell as readonly number[]).map(day => writtenDay(today + day))
    case 'person':
      return [cell].flat().map(key => personId(String(key)))
    case 'place':
      return [placeId(String(cell))]
    default:
      return cell as CellValue
  }
}

interface Reading extends Omit<Filling, 'board'> {
  readonly board: string
  readonly random: Random
}

const walkers = ['maren', 'yara', 'bastian', 'sunniva', 'jory', 'wren', 'oren', 'solveig']

/** The rows of a board in the order in which they stand. */
const rowsOf = (state: State, board: string): ContentNode[] =>
  rowsBy(state.nodes, 'parent', placeId(board)).sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1))

function readings(state: State, { board, today, now, random }: Reading): RowCells[] {
  const isSpring = board.includes('Spring')
  const [first, last] = isSpring ? [210, 190] : [30, 4]
  const id = (name: string) => columnId(board, name)
  return rowsOf(state, board).map((node, index) => {
    const ago = last + random.whole(first - last)
    const isWalked = isSpring || index % 4 !== 3
    const marram = 20 + random.whole(550) / 10
    const bare = Math.round((100 - marram) * (3 + random.whole(5))) / 10
    const states = isSpring ? ['s3'] : ['s1', 's2', 's3']
    const weather = ['t0', 't1', 't2', 't3'].filter(() => random.chance(3))
    const read: Record<string, CellValue> = {
      [id('By')]: [random.one(walkers), random.one(walkers)].filter(isFirst).map(personId),
      [id('State')]: isWalked ? random.one(states) : 's0',
      [id('Walked on')]: writtenDay(isWalked ? today - ago : today + 3 + index),
      ...(isWalked
        ? {
            [id('Posts found')]: 8 + random.whole(5),
            [id('Marram')]: Math.round(marram * 10) / 10,
            [id('Bare sand')]: bare,
            [id('Tallest plant')]: 40 + random.whole(70),
            ...(weather.length === 0 ? {} : { [id('Weather')]: weather }),
          }
        : {}),
    }
    return { node: node.id, by: node.maker, at: now - Math.max(1, ago - 1) * dayLength, cells: read }
  })
}

const isFirst = <T>(each: T, index: number, all: readonly T[]) => all.indexOf(each) === index

function winterCounts(state: State, { today, now, random }: Omit<Reading, 'board'>): RowCells[] {
  const board = 'birds/Winter counts'
  const id = (name: string) => columnId(board, name)
  return rowsOf(state, board).map((node, index) => ({
    node: node.id,
    by: node.maker,
    at: now - (50 - index * 5) * dayLength,
    cells: {
      [id('Counted on')]: writtenDay(today - 52 + index * 7),
      [id('By')]: [random.one(['aino', 'davit', 'pilar'])].map(personId),
      [id('Waders')]: 400 + random.whole(2600),
      [id('Gulls')]: 100 + random.whole(900),
      [id('Seen from')]: [placeId(`Sites/${random.one(['Gull Sands', 'Skerry Flats', 'Tern Bank'])}`)],
    },
  }))
}
