import { ArrowDown, ArrowUp } from 'lucide-react'
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { TreeItem } from '#contract/views/content.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { beginDrag } from '../../ui/drag.ts'
import { KindIcon } from '../../ui/KindIcon.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'

interface Props {
  readonly items: readonly TreeItem[]
  readonly onDone: () => void
}

/** The places within another one, put into an order by hand, all kept in one act; or again by their names. */
export function Arranging({ items, onDone }: Props) {
  const { slug } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const { ordered, list, move, drag, target } = useArranging(items)
  const keep = async (edits: readonly EditRequest[], confirmation: string) => {
    const isKept = edits.length === 0 || (await apply(edits, confirmation)).applied !== undefined
    if (isKept) onDone()
  }
  return (
    <section aria-label="Order" className="max-w-2xl">
      <p className="quiet mb-1 text-sm">
        Drag a place to where it belongs, or move it with its buttons, or with the arrow keys while Alt is
        held down.
      </p>
      <ol ref={list}>
        {ordered.map((item, index) => (
          <ArrangedRow
            key={item.id}
            item={item}
            isFirst={index === 0}
            isLast={index === ordered.length - 1}
            mark={markOf(index, target, ordered.length)}
            onDrag={event => drag(event, index)}
            onMove={step => move(index, step)}
          />
        ))}
      </ol>
      <ProblemNote problem={problem} />
      <div className="mt-3 flex flex-wrap gap-2">
        <button
          type="button"
          className="btn-main"
          disabled={isBusy}
          onClick={() => void keep(editsTo(ordered), 'The order is saved.')}
        >
          Save order
        </button>
        <button
          type="button"
          className="btn-plain"
          disabled={isBusy}
          onClick={() => void keep(editsToNames(items), 'The places are in the order of their names.')}
        >
          Order by name
        </button>
        <button type="button" className="btn-plain" onClick={onDone}>
          Cancel
        </button>
      </div>
    </section>
  )
}

/** An order that is made step by step, by keys and by dragging. */
function useArranging(items: readonly TreeItem[]) {
  const [ordered, setOrdered] = useState(items)
  /** Before which one what is dragged would go. */
  const [target, setTarget] = useState<number>()
  const list = useRef<HTMLOListElement>(null)
  const move = (index: number, step: number) => {
    const goal = index + step
    const moved = ordered[index]
    if (moved === undefined || goal < 0 || goal >= ordered.length) return
    const others = ordered.filter(each => each !== moved)
    setOrdered([...others.slice(0, goal), moved, ...others.slice(goal)])
    // The focus goes with what is moved.
    requestAnimationFrame(() => list.current?.querySelector<HTMLElement>(`[data-row="${moved.id}"]`)?.focus())
  }
  const drag = (event: PointerEvent, index: number) =>
    beginDrag(event, {
      scroll: list.current?.closest('main') ?? null,
      onMove: (_, y) => setTarget(targetAt(list.current, y)),
      onDrop: (_, y) => {
        const at = targetAt(list.current, y)
        if (at !== undefined) move(index, (at > index ? at - 1 : at) - index)
      },
      onEnd: () => setTarget(undefined),
    })
  return { ordered, list, move, drag, target }
}

function markOf(index: number, target: number | undefined, count: number): RowProps['mark'] {
  if (target === index) return 'above'
  return target === count && index === count - 1 ? 'below' : undefined
}

/** Before which of the rows a height lies. */
function targetAt(list: HTMLElement | null, y: number): number | undefined {
  if (list === null) return undefined
  const rows = [...list.children].map(each => each.getBoundingClientRect())
  const at = rows.findIndex(({ top, height }) => y < top + height / 2)
  return at === -1 ? rows.length : at
}

interface RowProps {
  readonly item: TreeItem
  readonly isFirst: boolean
  readonly isLast: boolean
  /** On which side of it what is dragged would go. */
  readonly mark: 'above' | 'below' | undefined
  readonly onDrag: (event: PointerEvent) => void
  readonly onMove: (step: number) => void
}

function ArrangedRow({ item: { id, name, kind }, isFirst, isLast, mark, onDrag, onMove }: RowProps) {
  const onKeyDown = (event: KeyboardEvent) => {
    const step = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0
    if (step === 0 || !event.altKey) return
    event.preventDefault()
    onMove(step)
  }
  return (
    <li
      data-row={id}
      tabIndex={0}
      className={`flex cursor-grab items-center gap-2 border-t border-base-300 px-2 py-1 last:border-b ${mark === undefined ? '' : mark === 'above' ? 'shadow-[inset_0_2px_0_var(--color-primary)]' : 'shadow-[inset_0_-2px_0_var(--color-primary)]'}`}
      onKeyDown={onKeyDown}
      onPointerDown={onDrag}
    >
      <KindIcon kind={kind} />
      <span className="min-w-0 grow break-words">{name}</span>
      <button
        type="button"
        className="btn-inline p-1"
        aria-label={`Move ${name} up`}
        disabled={isFirst}
        onClick={() => onMove(-1)}
      >
        <ArrowUp size={14} aria-hidden />
      </button>
      <button
        type="button"
        className="btn-inline p-1"
        aria-label={`Move ${name} down`}
        disabled={isLast}
        onClick={() => onMove(1)}
      >
        <ArrowDown size={14} aria-hidden />
      </button>
    </li>
  )
}

/** Those that stand where they stood keep their number. */
function editsTo(ordered: readonly TreeItem[]): EditRequest[] {
  return ordered.flatMap(({ id, order }, index) =>
    order === index + 1 ? [] : [{ kind: 'node.order', node: id, order: index + 1 } as const],
  )
}

const editsToNames = (items: readonly TreeItem[]): EditRequest[] =>
  items.flatMap(({ id, order }) => (order === 0 ? [] : [{ kind: 'node.order', node: id, order: 0 } as const]))
