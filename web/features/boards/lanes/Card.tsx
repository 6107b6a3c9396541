import type { KeyboardEvent } from 'react'
import type { RowView } from '#contract/views/boards.ts'
import { beginDrag, under } from '../../../ui/drag.ts'
import { useOpenBoard } from '../board-context.ts'
import { CellShown } from '../cells/CellShown.tsx'
import type { Followed } from '../use-followed.ts'

interface Props {
  readonly row: RowView
  readonly by: string
  readonly names: Readonly<Record<string, string>>
  readonly mayMove: boolean
  readonly focus: ReturnType<Followed['of']>
  /** Over which lane it is. */
  readonly onDrag: (lane: string | undefined) => void
  readonly onDrop: (lane: string) => void
  /** To the lane at its left or right. */
  readonly onStep: (step: -1 | 1) => void
}

/** So many values stand on a card, the first ones that are filled. */
const valuesShown = 3

/** A row as a card. */
export function Card({ row, by, names, mayMove, focus, onDrag, onDrop, onStep }: Props) {
  const { view, shown } = useOpenBoard()
  const values = shown
    .filter(
      ({ id, column }) =>
        column !== undefined && id !== by && column.kind !== 'long text' && row.cells[id] !== undefined,
    )
    .slice(0, valuesShown)
  const keys = (event: KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key] as -1 | 1 | undefined
    if (!event.altKey || step === undefined || !mayMove) return
    event.preventDefault()
    onStep(step)
  }
  return (
    <li
      className={`border border-base-300 px-2 py-1.5 hover:border-base-content/60 ${view.row === row.id ? 'border-primary bg-primary/10' : ''} ${mayMove ? 'cursor-grab' : ''}`}
      onPointerDown={event => {
        if (!mayMove) return
        beginDrag(event, {
          scroll: event.currentTarget.closest<HTMLElement>('[data-lanes]'),
          onMove: (x, y) => onDrag(under(x, y, 'data-lane')),
          onDrop: (x, y) => {
            const lane = under(x, y, 'data-lane')
            if (lane !== undefined) onDrop(lane)
          },
          onEnd: () => onDrag(undefined),
        })
      }}
    >
      <button
        type="button"
        {...focus}
        className="w-full cursor-pointer text-left font-semibold hover:underline"
        title={mayMove ? 'Alt and an arrow move it to the next lane' : undefined}
        onClick={() => view.openRow(row.id)}
        onKeyDown={keys}
      >
        {row.name}
      </button>
      <div className="quiet flex flex-wrap gap-x-3 text-sm">
        {values.map(({ id, column }) =>
          column === undefined ? null : (
            <span key={id} className="min-w-0 truncate" title={column.name}>
              <CellShown column={column} value={row.cells[id] ?? null} names={names} />
            </span>
          ),
        )}
        {row.comments > 0 && <span>❝{row.comments}</span>}
      </div>
    </li>
  )
}
