import { memo, type PointerEvent, type RefObject, useRef, useState } from 'react'
import { kindOf } from '#core/boards/kinds/all.ts'
import { nameColumn } from '#core/boards/view.ts'
import { beginDrag } from '../../../ui/drag.ts'
import { Menu, MenuAct, MenuRule } from '../../../ui/Menu.tsx'
import { cssWidth, type Shown, useOpenBoard } from '../board-context.ts'
import { useColumnOrder } from '../use-column-order.ts'

interface Props {
  /** The column in which one is. */
  readonly here: number
  readonly scroll: RefObject<HTMLElement | null>
}

/** The heads of the columns: each opens what can be done with it, and is dragged to its place; its edge is dragged for its width. */
export const Header = memo(function Header({ here, scroll }: Props) {
  const { shown } = useOpenBoard()
  const line = useRef<HTMLDivElement>(null)
  const order = useColumnOrder()
  const [target, setTarget] = useState<ColumnTarget>()
  const [edge, setEdge] = useState<number>()
  const left = target?.left ?? edge
  const drag = (event: PointerEvent, index: number) =>
    beginDrag(event, {
      scroll: scroll.current,
      onMove: x => setTarget(columnTarget(line.current, x)),
      onDrop: x => {
        const to = columnTarget(line.current, x)
        if (to !== undefined) order.move(index, to.index > index ? to.index - 1 : to.index)
      },
      onEnd: () => setTarget(undefined),
    })
  return (
    <div role="rowgroup" className="sticky top-0 z-10 bg-base-100">
      <div
        ref={line}
        role="row"
        aria-rowindex={1}
        className="relative flex h-9 items-end border-b border-base-content"
      >
        {shown.map((each, index) => (
          <Head
            key={each.id}
            shown={each}
            index={index}
            isHere={here === index}
            onDrag={event => drag(event, index)}
            onEdge={x => setEdge(x === undefined ? undefined : x - leftOf(line.current))}
          />
        ))}
        {left !== undefined && (
          <div
            aria-hidden
            className="absolute inset-y-0 z-10 w-0.5 -translate-x-px bg-primary"
            style={{ left }}
          />
        )}
      </div>
    </div>
  )
})

interface ColumnTarget {
  /** Before which one. */
  readonly index: number
  readonly left: number
}

const leftOf = (line: HTMLElement | null): number => line?.getBoundingClientRect().left ?? 0

/** Between which columns the pointer is nearest; never before the name. */
function columnTarget(line: HTMLElement | null, x: number): ColumnTarget | undefined {
  if (line === null) return undefined
  const heads = [...line.querySelectorAll('[role=columnheader]')].map(each => each.getBoundingClientRect())
  const begins = leftOf(line)
  const index = heads.findIndex(({ left, width }, nth) => nth > 0 && x < left + width / 2)
  if (index === -1) return { index: heads.length, left: (heads.at(-1)?.right ?? begins) - begins }
  return { index, left: (heads[index]?.left ?? begins) - begins }
}

interface HeadProps {
  readonly shown: Shown
  readonly index: number
  readonly isHere: boolean
  readonly onDrag: (event: PointerEvent) => void
  /** Where the edge that is dragged would be. */
  readonly onEdge: (x: number | undefined) => void
}

function Head({ shown, index, isHere, onDrag, onEdge }: HeadProps) {
  const { view } = useOpenBoard()
  const order = useColumnOrder()
  const sorted = view.view.sort.find(each => each.column === shown.id)
  const isNumber = shown.column?.kind === 'number'
  return (
    <div
      role="columnheader"
      aria-colindex={index + 1}
      aria-sort={sorted === undefined ? undefined : sorted.isDown ? 'descending' : 'ascending'}
      className={`flex h-full shrink-0 items-end bg-base-100 px-2 pb-1 text-sm font-semibold ${index === 0 ? 'sticky left-0 z-[1]' : 'relative'} ${isNumber ? 'justify-end' : ''}`}
      style={{ width: cssWidth(shown) }}
      onPointerDown={index === 0 ? undefined : onDrag}
    >
      <Menu
        hasSign={false}
        buttonClass={`quiet max-w-full min-w-0 text-sm hover:text-base-content font-semibold ${isHere ? 'underline' : ''}`}
        button={
          <span className="truncate">
            {shown.name}
            {unitOf(shown)}
            {sorted !== undefined && <span aria-hidden>{sorted.isDown ? ' ↓' : ' ↑'}</span>}
            {shown.column?.isRestricted === true && <span className="text-warning"> · restricted</span>}
          </span>
        }
      >
        <HeadActs shown={shown} index={index} />
      </Menu>
      <Edge onWidth={width => order.resize(shown.id, width)} onEdge={onEdge} width={shown.width} />
    </div>
  )
}

const unitOf = ({ column }: Shown): string => {
  const { unit } = Object(column?.settings) as { readonly unit?: string }
  return unit === undefined || unit === '' ? '' : `, ${unit}`
}

function HeadActs({ shown, index }: Pick<HeadProps, 'shown' | 'index'>) {
  const { view, mayArrange, openPanel, shown: all } = useOpenBoard()
  const order = useColumnOrder()
  const { sort, group } = view.view
  const sortBy = (isDown: boolean) =>
    view.change({
      sort: [{ column: shown.id, isDown }, ...sort.filter(each => each.column !== shown.id)].slice(0, 5),
    })
  const isSorted = sort.some(each => each.column === shown.id)
  const groups = shown.column !== undefined && kindOf(shown.column).groupOf !== undefined
  return (
    <>
      <MenuAct onAct={() => sortBy(false)}>Sort upwards</MenuAct>
      <MenuAct onAct={() => sortBy(true)}>Sort downwards</MenuAct>
      {isSorted && (
        <MenuAct onAct={() => view.change({ sort: sort.filter(each => each.column !== shown.id) })}>
          Do not sort by it
        </MenuAct>
      )}
      {groups && group !== shown.id && (
        <MenuAct onAct={() => view.change({ group: shown.id })}>Group by it</MenuAct>
      )}
      <MenuRule />
      {index > 1 && <MenuAct onAct={() => order.move(index, index - 1)}>Move to the left</MenuAct>}
      {index > 0 && index < all.length - 1 && (
        <MenuAct onAct={() => order.move(index, index + 1)}>Move to the right</MenuAct>
      )}
      <MenuAct onAct={() => order.widen(index, 1)}>Wider</MenuAct>
      <MenuAct onAct={() => order.widen(index, -1)}>Narrower</MenuAct>
      {shown.id !== nameColumn && <MenuAct onAct={() => order.hide(shown.id)}>Hide here</MenuAct>}
      {order.keepForAll !== undefined && (
        <MenuAct onAct={order.keepForAll}>Keep this order of columns for all</MenuAct>
      )}
      {mayArrange && shown.column !== undefined && (
        <>
          <MenuRule />
          <MenuAct onAct={() => openPanel({ of: 'column', column: shown.id })}>Change column …</MenuAct>
          <MenuAct isDrastic onAct={() => openPanel({ of: 'delete column', column: shown.id })}>
            Delete column …
          </MenuAct>
        </>
      )}
    </>
  )
}

interface EdgeProps extends Pick<HeadProps, 'onEdge'> {
  readonly width: number
  readonly onWidth: (width: number) => void
}

/** Dragged by pointer; in the menu, and with Alt, Shift and an arrow, there is the same by steps. */
function Edge({ width, onEdge, onWidth }: EdgeProps) {
  return (
    <span
      aria-hidden
      className="absolute top-0 right-0 h-full w-1.5 cursor-col-resize hover:bg-primary/40"
      onPointerDown={event => {
        event.stopPropagation()
        const from = event.clientX
        beginDrag(event, {
          onMove: onEdge,
          onDrop: x => onWidth(width + x - from),
          onEnd: () => onEdge(undefined),
        })
      }}
    />
  )
}
