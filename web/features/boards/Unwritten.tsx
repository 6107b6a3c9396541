import { kindOf } from '#core/boards/kinds/all.ts'
import type { CellValue } from '#core/boards/kind.ts'
import { counted } from '#core/words/english.ts'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { type OpenBoard, useOpenBoard } from './board-context.ts'
import { Notice } from './Notice.tsx'
import type { Writing } from './use-writing.ts'
import type { CellWrite, Unwritten as Left } from './writing.ts'

/** What could not be written: nothing of it is lost, and its author decides. */
export function Unwritten({ writing }: { readonly writing: Writing }) {
  const { unwritten, problem, leave } = writing
  if (unwritten === undefined) return problem === undefined ? null : <ProblemNote problem={problem} />
  return unwritten.kind === 'conflict' ? (
    <Conflict left={unwritten} writing={writing} />
  ) : (
    <Notice label="Cells that cannot be written" onClose={leave}>
      <p>{counted(unwritten.count, 'cell', 'cells')} cannot be written. Nothing was changed.</p>
      <ul className="quiet my-1 list-disc pl-5 text-sm">
        {unwritten.why.map(why => (
          <li key={why}>{why}</li>
        ))}
      </ul>
      <div className="mt-1 flex gap-2">
        {unwritten.cells.length > unwritten.count && (
          <button
            type="button"
            className="btn-main"
            onClick={() => void writing.write(unwritten.cells, { isPartial: true })}
          >
            Write the other {unwritten.cells.length - unwritten.count}
          </button>
        )}
        <button type="button" className="btn-plain" onClick={leave}>
          Cancel
        </button>
      </div>
    </Notice>
  )
}

interface ConflictProps {
  readonly left: Extract<Left, { kind: 'conflict' }>
  readonly writing: Writing
}

/** Somebody else wrote in the same cell meanwhile: both values, side by side. */
function Conflict({ left: { cells, conflicts }, writing }: ConflictProps) {
  const board = useOpenBoard()
  const yours = (row: string, column: string) =>
    cells.find(each => each.row === row && each.column === column)
  const again = (): CellWrite[] =>
    cells.map(each => {
      const now = conflicts.find(({ row, column }) => row === each.row && column === each.column)
      return now === undefined ? each : { ...each, seen: now.at, before: now.now }
    })
  return (
    <Notice label="Written by somebody else meanwhile" onClose={writing.leave}>
      {conflicts.slice(0, 5).map(({ row, column, now, by }) => (
        <p key={`${row} ${column}`}>
          {by ?? 'Somebody else'} wrote <strong>{inWords(board, column, now)}</strong> in{' '}
          {board.shown.find(each => each.id === column)?.name ?? 'this cell'}, you wrote{' '}
          <strong>{inWords(board, column, yours(row, column)?.value ?? null)}</strong>.
        </p>
      ))}
      <div className="mt-1 flex gap-2">
        <button type="button" className="btn-main" onClick={() => void writing.write(again())}>
          Write mine
        </button>
        <button type="button" className="btn-plain" onClick={writing.leave}>
          Keep theirs
        </button>
      </div>
    </Notice>
  )
}

function inWords({ shown, usage }: OpenBoard, id: string, value: CellValue): string {
  const column = shown.find(each => each.id === id)?.column
  if (value === null) return 'nothing'
  return column === undefined
    ? String(value)
    : kindOf(column).words(value, column.settings, usage) || 'nothing'
}
