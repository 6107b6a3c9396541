import { useState } from 'react'
import type { RowsView } from '#contract/views/boards.ts'
import {
  type Condition,
  type Conditions,
  isNested,
  nameColumn,
  type NestedConditions,
  sectionColumn,
} from '#core/boards/view.ts'
import { counted, numberWords } from '#core/words/english.ts'
import { type OpenBoard, useOpenBoard } from './board-context.ts'
import { ConditionForm } from './ConditionForm.tsx'
import { conditionWords } from './condition-words.ts'
import { groupableColumns } from './group-words.ts'
import { useColumnOrder } from './use-column-order.ts'

export type Found = Pick<RowsView, 'count' | 'all' | 'isPartial'>

/** What the view is made of, as a sentence: its conditions, its order, its groups. */
export function ConditionsLine({ found }: { readonly found: Found | undefined }) {
  const board = useOpenBoard()
  const { view } = board
  const { where } = view.view
  const [isAdding, setAdding] = useState(false)
  const put = (of: Conditions['of'], join = where.join) => view.change({ where: { join, of } })
  return (
    <div className="mb-1 text-sm">
      <div className="flex flex-wrap items-center gap-x-2 gap-y-1 py-0.5">
        <span className="quiet">where</span>
        {where.of.map((each, index) => (
          <Part
            key={index}
            part={each}
            isFirst={index === 0}
            join={where.join}
            onJoin={() => put(where.of, where.join === 'all' ? 'any' : 'all')}
            onDrop={() => put(where.of.filter((_, nth) => nth !== index))}
          />
        ))}
        {!isAdding && (
          <button
            type="button"
            className="cursor-pointer underline underline-offset-2"
            onClick={() => setAdding(true)}
          >
            add a condition
          </button>
        )}
        <Sorting />
        {view.view.layout === 'table' && (
          <>
            <Grouping />
            <HiddenColumns />
          </>
        )}
        <span role="status" className="quiet ml-auto">
          {found === undefined
            ? ''
            : found.count === found.all
              ? counted(found.all, 'row', 'rows')
              : `${numberWords(found.count)} of ${counted(found.all, 'row', 'rows')}`}
        </span>
      </div>
      {isAdding && (
        <ConditionForm
          onDone={condition => {
            if (condition !== undefined) put([...where.of, condition])
            setAdding(false)
          }}
        />
      )}
    </div>
  )
}

function Sorting() {
  const board = useOpenBoard()
  const { view } = board
  const { sort } = view.view
  return (
    <>
      <span className="quiet ml-2">sorted by</span>
      {sort.length === 0 && <span className="quiet">the order of the board</span>}
      {sort.map(({ column, isDown }) => (
        <span key={column} className="inline-flex items-center">
          <button
            type="button"
            className="cursor-pointer font-semibold"
            aria-label={`${columnName(board, column)}, ${isDown ? 'downwards' : 'upwards'}: turn round`}
            onClick={() =>
              view.change({
                sort: sort.map(each => (each.column === column ? { column, isDown: !isDown } : each)),
              })
            }
          >
            {columnName(board, column)} {isDown ? '↓' : '↑'}
          </button>
          <Drop
            label={`Do not sort by ${columnName(board, column)}`}
            onDrop={() => view.change({ sort: sort.filter(each => each.column !== column) })}
          />
        </span>
      ))}
    </>
  )
}

const columnName = ({ info }: OpenBoard, id: string): string =>
  id === nameColumn
    ? 'Name'
    : id === sectionColumn
      ? 'Section'
      : (info.columns.find(each => each.id === id)?.name ?? 'a column that you do not see')

interface PartProps {
  readonly part: Condition | NestedConditions
  readonly isFirst: boolean
  readonly join: Conditions['join']
  readonly onJoin: () => void
  readonly onDrop: () => void
}

function Part({ part, isFirst, join, onJoin, onDrop }: PartProps) {
  const board = useOpenBoard()
  const words = isNested(part)
    ? `(${part.of.map(each => conditionWords(board, each).join(' ')).join(part.join === 'all' ? ' and ' : ' or ')})`
    : conditionWords(board, part).slice(1).join(' ')
  return (
    <>
      {!isFirst && (
        <button
          type="button"
          className="quiet cursor-pointer hover:underline"
          title="Turn “and” into “or”, and back"
          onClick={onJoin}
        >
          {join === 'all' ? 'and' : 'or'}
        </button>
      )}
      <span className="inline-flex items-center gap-1">
        {!isNested(part) && <strong>{conditionWords(board, part)[0]}</strong>}
        {words}
        <Drop label={`Leave out: ${words}`} onDrop={onDrop} />
      </span>
    </>
  )
}

const Drop = ({ label, onDrop }: { readonly label: string; readonly onDrop: () => void }) => (
  <button
    type="button"
    className="quiet grid size-[24px] cursor-pointer place-items-center hover:text-base-content"
    aria-label={label}
    onClick={onDrop}
  >
    ×
  </button>
)

function Grouping() {
  const board = useOpenBoard()
  const { view, info } = board
  const { group } = view.view
  const others = groupableColumns(board)
  return (
    <label className="ml-2 inline-flex items-center gap-1">
      <span className="quiet">grouped by</span>
      <select
        className="cursor-pointer bg-base-100 font-semibold"
        value={group ?? ''}
        onChange={event => view.change({ group: event.target.value === '' ? null : event.target.value })}
      >
        <option value="">nothing</option>
        {(info.sections.length > 0 || group === sectionColumn) && (
          <option value={sectionColumn}>sections</option>
        )}
        {others.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  )
}

/** Columns that are left out of this view can be put back. */
function HiddenColumns() {
  const { info, shown } = useOpenBoard()
  const { showAll } = useColumnOrder()
  const hidden = info.columns.length - (shown.length - 1)
  if (hidden <= 0) return null
  return (
    <button type="button" className="quiet ml-2 cursor-pointer hover:underline" onClick={showAll}>
      {counted(hidden, 'column', 'columns')} hidden: show all
    </button>
  )
}
