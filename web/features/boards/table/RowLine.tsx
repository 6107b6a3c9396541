import { type DragEvent, memo, type PointerEvent, type ReactNode } from 'react'
import type { EditedCellView, RowView } from '#contract/views/boards.ts'
import type { CellValue } from '#core/boards/kind.ts'
import { fromDrop } from '../../../api/chosen-files.ts'
import { cssWidth, type Shown } from '../board-context.ts'
import { CellEditor } from '../cells/CellEditor.tsx'
import { CellShown, isRight } from '../cells/CellShown.tsx'
import type { GoOn } from '../cells/editing.ts'
import { NameEditor } from '../cells/NameEditor.tsx'
import { useCellFiles } from '../use-cell-files.ts'
import { type EditedBy, editedBy } from '../use-edited.ts'
import { valueIn } from '../writing.ts'
import type { Spot } from './selection.ts'
import type { ShownRange } from './use-shown-range.ts'
import { type Editing, isWritable } from './use-table.ts'

/** What cells of a row do: the same for all rows, and for as long as the table is open. */
export interface RowActs {
  readonly finish: (value: CellValue, goOn: GoOn) => void
  readonly cancel: () => void
  readonly openRow: (row: string) => void
  readonly drag: (event: PointerEvent, position: number) => void
}

interface Props {
  readonly position: number
  /** Not there while it is asked for. */
  readonly row: RowView | undefined
  readonly names: Readonly<Record<string, string>>
  readonly top: number
  readonly height: number
  readonly shown: readonly Shown[]
  /** Which of its columns are in sight. */
  readonly range: ShownRange
  readonly isOpen: boolean
  /** The column of the cell that is meant, where it is in this row; and those of the block. */
  readonly here: number | undefined
  readonly blockFrom: number | undefined
  readonly blockThrough: number | undefined
  readonly isBlockOfOne: boolean
  readonly editing: Editing | undefined
  /** What is written and not confirmed yet, by column. */
  readonly pending: ReadonlyMap<string, CellValue> | undefined
  /** Where others write, by column. */
  readonly edited: ReadonlyMap<string, EditedCellView> | undefined
  readonly mayPut: boolean
  readonly acts: RowActs
}

export const cellId = ({ row, column }: Spot): string => `cell-${row}-${column}`

/** The cell in which something happened. */
export function spotOf(target: EventTarget): Spot | undefined {
  const cell = target instanceof Element ? target.closest('[role=gridcell]') : null
  const [, row, column] = /^cell-(\d+)-(\d+)$/.exec(cell?.id ?? '') ?? []
  return row === undefined ? undefined : { row: Number(row), column: Number(column) }
}

/** One row of the table. Some fifty are drawn, and most stay as they are while one scrolls. */
export const RowLine = memo(function RowLine(props: Props) {
  const { position, row, top, height, shown, range, isOpen, mayPut, acts } = props
  const [name, ...others] = shown
  const isWaiting = row === undefined
  return (
    <div
      role="row"
      aria-rowindex={position + 2}
      className={`absolute right-0 left-0 flex border-b border-base-300 ${isOpen ? 'bg-open' : 'bg-base-100 hover:bg-base-200'}`}
      style={{ top, height }}
    >
      {mayPut && !isWaiting && (
        <span
          aria-hidden
          title="Drag to move; so do Alt and an arrow"
          className="row-grip sticky left-0 z-[2] -mr-2 w-2 shrink-0 cursor-grab self-stretch"
          onPointerDown={event => acts.drag(event, position)}
        />
      )}
      {name !== undefined && <Cell {...props} each={name} column={0} />}
      {range.before > 0 && <span className="shrink-0" style={{ width: range.before }} />}
      {others.slice(range.from - 1, range.until - 1).map((each, nth) => (
        <Cell key={each.id} {...props} each={each} column={range.from + nth} />
      ))}
    </div>
  )
})

interface CellProps extends Pick<Props, 'position' | 'names' | 'acts'> {
  readonly shown: Shown
  readonly row: RowView
  readonly value: CellValue
  readonly column: number
  readonly isHere: boolean
  readonly isInBlock: boolean
  readonly isBlockOfOne: boolean
  readonly editing: Editing | undefined
}

/** One element, where it only shows a value: of all elements on the screen these are the most. */
function Cell({ each, column, row, ...of }: Props & { readonly each: Shown; readonly column: number }) {
  if (row === undefined)
    return <div role="gridcell" className="shrink-0 px-2" style={{ width: cssWidth(each) }} aria-busy />
  const { blockFrom, blockThrough, isBlockOfOne, here, editing, pending, edited, names, position, acts } = of
  const waiting = pending?.get(each.id)
  const by = edited?.get(each.id)
  const props: CellProps = {
    shown: each,
    row,
    names,
    value: waiting === undefined ? valueIn(row, each.id) : waiting,
    position,
    column,
    isHere: here === column,
    isInBlock: isWithin(column, blockFrom, blockThrough),
    isBlockOfOne,
    editing: editing?.column === column ? editing : undefined,
    acts,
  }
  return (
    <div
      role="gridcell"
      id={cellId({ row: position, column })}
      aria-colindex={column + 1}
      aria-selected={props.isInBlock}
      className={cellLooks(props)}
      style={{ width: cssWidth(each) }}
    >
      {props.editing !== undefined ? <Edited {...props} editing={props.editing} /> : stillShown(props)}
      {by !== undefined && props.editing === undefined && <WrittenBy by={editedBy(by)} />}
    </div>
  )
}

const isWithin = (column: number, from: number | undefined, through: number | undefined): boolean =>
  from !== undefined && through !== undefined && column >= from && column <= through

const WrittenBy = ({ by }: { readonly by: EditedBy }) => (
  <span
    className="absolute top-0.5 right-0.5 bg-warning px-0.5 text-[0.65rem] font-bold text-base-100"
    title={`${by.name} is writing here`}
  >
    {by.initials}
  </span>
)

/** Where it stands, whether it is meant, and what side it is read from. */
function cellLooks({ shown, column, editing, isHere, isInBlock, isBlockOfOne }: CellProps): string {
  return [
    'shrink-0 px-2',
    column === 0 ? 'sticky left-0 z-[1] bg-inherit' : 'relative',
    editing !== undefined
      ? 'z-[2] flex items-center'
      : column === 0
        ? 'flex items-center'
        : 'truncate leading-[29px]',
    isInBlock && !isBlockOfOne ? 'bg-open' : '',
    isHere ? 'outline-2 -outline-offset-2 outline-primary' : '',
    isRight(shown.column?.kind) ? 'justify-end text-right' : '',
  ].join(' ')
}

function stillShown({ shown, row, value, names, acts }: CellProps): ReactNode {
  if (shown.column === undefined) return <Name row={row} name={String(value ?? '')} onOpen={acts.openRow} />
  const cell = <CellShown column={shown.column} value={value} names={names} />
  if (shown.column.kind !== 'file' || !isWritable(row, shown)) return cell
  return (
    <TakesFiles row={row} column={shown.id}>
      {cell}
    </TakesFiles>
  )
}

interface TakesFilesProps {
  readonly row: RowView
  readonly column: string
  readonly children: ReactNode
}

/** Files can be dropped on a cell that holds some. */
function TakesFiles({ row, column, children }: TakesFilesProps) {
  const upload = useCellFiles({ row: row.id, name: row.name, column })
  return (
    <span
      className="block h-full truncate"
      onDragOver={(event: DragEvent) => {
        if (event.dataTransfer.types.includes('Files')) event.preventDefault()
      }}
      onDrop={(event: DragEvent) => {
        event.preventDefault()
        void fromDrop(event.dataTransfer).then(upload)
      }}
    >
      {children}
    </span>
  )
}

interface NameProps {
  readonly row: RowView
  readonly name: string
  readonly onOpen: (row: string) => void
}

/** The name of a row, what sets it apart, and the way into it. */
const Name = ({ row, name, onOpen }: NameProps) => (
  <span className="flex min-w-0 items-center gap-2">
    <button
      type="button"
      tabIndex={-1}
      className="min-w-0 cursor-pointer truncate text-left font-semibold hover:underline"
      onClick={() => onOpen(row.id)}
    >
      {name}
    </button>
    {row.isOwnAccess && <span className="shrink-0 text-sm text-warning">own access</span>}
    {row.comments > 0 && (
      <span className="quiet shrink-0 text-sm" title={`${row.comments} comments`}>
        <span aria-hidden>❝</span>
        {row.comments}
      </span>
    )}
  </span>
)

function Edited({ shown, row, value, names, editing, acts }: CellProps & { readonly editing: Editing }) {
  const common = { typed: editing.typed, onDone: acts.finish, onCancel: acts.cancel }
  return shown.column === undefined ? (
    <NameEditor key={row.id} value={String(value ?? '')} {...common} />
  ) : (
    <CellEditor
      key={`${row.id} ${shown.id}`}
      row={row}
      column={shown.column}
      value={value}
      names={names}
      {...common}
    />
  )
}
