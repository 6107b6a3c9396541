import { skipToken } from '@reduxjs/toolkit/query'
import { useEffect, useState } from 'react'
import type { ColumnView, RowsView, RowView } from '#contract/views/boards.ts'
import { isSame } from '#core/base/same.ts'
import type { CellValue } from '#core/boards/kind.ts'
import type { StateSettings } from '#core/boards/kinds/state.ts'
import { somebody } from '#core/boards/rows.ts'
import { sectionColumn } from '#core/boards/view.ts'
import { useBoardRowsQuery } from '../../../api/boards.ts'
import { useChange } from '../../../api/use-change.ts'
import { type OpenBoard, useOpenBoard } from '../board-context.ts'
import { groupableColumns, groupWords } from '../group-words.ts'
import { type NewRowAt, NewRowField } from '../NewRowField.tsx'
import { StateMark } from '../StateMark.tsx'
import { Unwritten } from '../Unwritten.tsx'
import { type Followed, useFollowed } from '../use-followed.ts'
import { conditionsIn } from '../use-view.ts'
import { valueIn } from '../writing.ts'
import { Card } from './Card.tsx'

/** So many are asked for together, and drawn in one lane at most. */
const rowsAtMost = 500
const rowsAtOnce = 50

type Asked = Readonly<Record<'slug' | 'id' | 'group', string>>

/** The same rows in lanes, by a state, a person or a section; a card is put into another by dragging, or by Alt and an arrow. */
export function Lanes({ onFound }: { readonly onFound: (found: RowsView | undefined) => void }) {
  const board = useOpenBoard()
  const { slug, node, view, writing } = board
  const by = laneColumn(board)
  const asked = { slug, id: node.id, ...conditionsIn(view.parameters), group: by ?? 'none' }
  const { data } = useBoardRowsQuery({ ...asked, from: '0', count: String(rowsAtMost) })
  useEffect(() => onFound(data), [data, onFound])
  const move = useMove(by)
  const followed = useFollowed()
  const [target, setTarget] = useState<string>()
  if (by === undefined)
    return (
      <p className="quiet py-4">
        Lanes need a column of states or people, or sections. This board has none that you see.
      </p>
    )
  const lanes = lanesOf(board, by, data)
  return (
    <>
      <LaneChoice by={by} />
      <Unwritten writing={writing} />
      <div data-lanes className="flex min-h-0 flex-1 gap-3 overflow-auto pb-3">
        {lanes.map((lane, index) => (
          <LaneShown
            key={lane.key}
            lane={lane}
            by={by}
            asked={asked}
            isTarget={target === lane.key}
            followed={followed}
            onDrag={setTarget}
            onDrop={(row, key) => void move(row, key)}
            onStep={(row, step) => {
              const next = lanes[index + step]
              if (next === undefined) return
              followed.follow(row.id)
              void move(row, next.key)
            }}
          />
        ))}
      </div>
    </>
  )
}

interface LaneProps {
  readonly lane: Lane
  readonly by: string
  /** How the rows of all lanes are asked for. */
  readonly asked: Asked
  /** Whether a card would be let go of here. */
  readonly isTarget: boolean
  readonly followed: Followed
  readonly onDrag: (lane: string | undefined) => void
  readonly onDrop: (row: RowView, lane: string) => void
  readonly onStep: (row: RowView, step: -1 | 1) => void
}

function LaneShown({ lane, by, asked, isTarget, followed, onDrag, onDrop, onStep }: LaneProps) {
  const board = useOpenBoard()
  const at = newRowAt(board, by, lane.key)
  const { rows, names, more } = useLaneRows(lane, asked)
  return (
    <section
      aria-label={lane.name}
      data-lane={lane.key}
      className={`flex min-h-full w-60 shrink-0 flex-col border-t-2 ${isTarget ? 'border-primary bg-open' : 'border-base-content'}`}
    >
      <h2 className="flex items-center gap-1.5 py-1.5 font-bold">
        {lane.mark}
        {lane.name}
        <span className="quiet text-sm font-normal">{lane.count}</span>
      </h2>
      <ul className="grid content-start gap-1.5">
        {rows.map(row => (
          <Card
            key={row.id}
            row={row}
            by={by}
            names={names}
            mayMove={mayMove(board, by, row)}
            focus={followed.of(row.id)}
            onDrag={onDrag}
            onDrop={key => onDrop(row, key)}
            onStep={step => onStep(row, step)}
          />
        ))}
      </ul>
      {more}
      {at !== undefined && (
        <NewRowField where={lane.name} at={at} className="mt-1 w-full bg-transparent px-2 py-1" />
      )}
    </section>
  )
}

/** A board with fewer rows is asked for once; else each lane for its own, some at a time. */
function useLaneRows(lane: Lane, asked: Asked) {
  const [shown, setShown] = useState(rowsAtOnce)
  const count = Math.min(lane.count, shown, rowsAtMost)
  const { data } = useBoardRowsQuery(
    lane.found !== undefined || count === 0
      ? skipToken
      : { ...asked, from: String(lane.from), count: String(count) },
  )
  const { rows = [], names = {} } = lane.found ?? data ?? {}
  const left = lane.count - rows.length
  const isMore = lane.found === undefined && data !== undefined && left > 0
  const more = isMore && (
    <p className="quiet py-1.5 text-sm">
      {rows.length < rowsAtMost ? (
        <button type="button" className="btn-inline" onClick={() => setShown(shown + rowsAtOnce)}>
          {left.toLocaleString('en')} more …
        </button>
      ) : (
        `${left.toLocaleString('en')} more are not drawn. A condition brings them into sight.`
      )}
    </p>
  )
  return { rows, names, more }
}

/** What lanes can be of. */
const laneColumns = (board: OpenBoard) =>
  groupableColumns(board).filter(({ kind }) => kind === 'state' || kind === 'person')

function laneColumn(board: OpenBoard): string | undefined {
  const { view, info } = board
  const columns = laneColumns(board)
  const { by } = view.view
  if (by === sectionColumn || columns.some(({ id }) => id === by)) return by ?? undefined
  return (
    columns.find(({ kind }) => kind === 'state')?.id ??
    columns[0]?.id ??
    (info.sections.length > 0 ? sectionColumn : undefined)
  )
}

function LaneChoice({ by }: { readonly by: string }) {
  const board = useOpenBoard()
  return (
    <label className="mb-2 flex items-center gap-1.5 text-sm">
      <span className="quiet">lanes by</span>
      <select
        className="cursor-pointer bg-base-100 font-semibold"
        value={by}
        onChange={event => board.view.change({ by: event.target.value })}
      >
        {laneColumns(board).map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
        {board.info.sections.length > 0 && <option value={sectionColumn}>sections</option>}
      </select>
    </label>
  )
}

interface Lane {
  readonly key: string
  readonly name: string
  readonly count: number
  readonly mark: React.ReactNode
  /** How many rows stand in the lanes before it. */
  readonly from: number
  /** Its rows, where all of the board came together. */
  readonly found: Pick<RowsView, 'rows' | 'names'> | undefined
}

/** Each state and section has a lane, also where nothing stands in it. */
function lanesOf(board: OpenBoard, by: string, found: RowsView | undefined): Lane[] {
  const { info } = board
  const column = info.columns.find(each => each.id === by)
  const { states = [] } = Object(column?.settings) as Partial<StateSettings>
  const groups = found?.groups ?? []
  const fixed = by === sectionColumn ? info.sections.map(each => each.id) : states.map(each => each.id)
  const keys = [...fixed, ...groups.map(each => each.key).filter(key => !fixed.includes(key))]
  const names = found?.names ?? {}
  const isWhole = found !== undefined && found.rows.length === found.count
  return keys.map(key => {
    const state = states.find(each => each.id === key)
    const at = groups.findIndex(each => each.key === key)
    const from = groups.slice(0, Math.max(0, at)).reduce((sum, each) => sum + each.count, 0)
    const count = groups[at]?.count ?? 0
    return {
      key,
      name: groupWords(board, key, { names, by }),
      count,
      mark: state === undefined ? null : <StateMark mark={state.mark} isFinished={state.isFinished} />,
      from,
      found: isWhole ? { rows: found.rows.slice(from, from + count), names } : undefined,
    }
  })
}

const mayMove = ({ info, mayArrange }: OpenBoard, by: string, row: RowView): boolean =>
  by === sectionColumn
    ? mayArrange
    : row.mayEdit && info.columns.find(each => each.id === by)?.isMine === true

/** What stands in the cells of a lane. */
const valueOfLane = (column: ColumnView | undefined, key: string): CellValue =>
  key === '' ? null : column?.kind === 'state' ? key : key.split(' ')

/** With what a row begins that is made in a lane; `undefined` where it could not be put. */
function newRowAt({ info, mayAdd }: OpenBoard, by: string, key: string): NewRowAt | undefined {
  if (!mayAdd) return undefined
  if (by === sectionColumn) return { section: key === '' ? null : key }
  const column = info.columns.find(each => each.id === by)
  if (key === '') return { section: null }
  return column?.isMine === true && !key.split(' ').includes(somebody)
    ? { section: null, cell: { column: by, value: valueOfLane(column, key) } }
    : undefined
}

/** Into another lane: the cell is written, or the row put into the section. */
function useMove(by: string | undefined): (row: RowView, key: string) => Promise<void> {
  const { slug, writing, info } = useOpenBoard()
  const { apply } = useChange(slug)
  return async (row, key) => {
    if (by === undefined) return
    if (by === sectionColumn) {
      const section = key === '' ? null : key
      if (section !== row.section)
        await apply(
          [{ kind: 'node.order', node: row.id, order: row.order, section }],
          `${row.name} stands in another section.`,
        )
      return
    }
    const value = valueOfLane(
      info.columns.find(each => each.id === by),
      key,
    )
    const before = valueIn(row, by)
    if (!isSame(value, before))
      await writing.write([{ row: row.id, column: by, value, before, seen: row.version }])
  }
}
