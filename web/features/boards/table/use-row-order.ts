import { type PointerEvent, type RefObject, useEffect, useRef, useState } from 'react'
import type { Problem } from '#contract/views/problem.ts'
import { counted } from '#core/words/english.ts'
import { sectionColumn } from '#core/boards/view.ts'
import { usePutRowsMutation } from '../../../api/boards.ts'
import { say } from '../../../store/message.ts'
import { useAppDispatch } from '../../../store/store.ts'
import { beginDrag } from '../../../ui/drag.ts'
import { useOpenBoard } from '../board-context.ts'
import { lineHeight, type Lines, type Rows, type RowTarget } from './layout.ts'
import type { RowsAt } from '../use-rows.ts'
import type { TableState } from './use-table.ts'

export interface RowOrder {
  /** Whether rows stand as the board has them, and one may put them elsewhere. */
  readonly mayPut: boolean
  /** Where what is dragged would go. */
  readonly target: RowTarget | undefined
  readonly drag: (event: PointerEvent, position: number) => void
  /** The rows of the block, by one step. */
  readonly step: (step: -1 | 1) => void
}

interface Given {
  readonly lines: Lines
  readonly table: TableState
  readonly scroll: RefObject<HTMLElement | null>
  /** In which the lines lie. */
  readonly body: RefObject<HTMLElement | null>
}

/** Rows are put elsewhere by dragging and by keys; those of a block together. */
export function useRowOrder({ lines, table, scroll, body }: Given): RowOrder {
  const { slug, node, view, mayArrange } = useOpenBoard()
  const dispatch = useAppDispatch()
  const [send] = usePutRowsMutation()
  const [target, setTarget] = useState<RowTarget>()
  // Until the rows stand where they were put, another step would be one of others.
  const isWaiting = useRef(false)
  const { answer } = table.rows
  useEffect(() => {
    isWaiting.current = false
  }, [answer])
  const { sort, group } = view.view
  const mayPut = mayArrange && sort.length === 0 && (group === null || group === sectionColumn)

  const put = async (rows: Rows, to: RowTarget) => {
    const from = await table.rowsIn(rows)
    const ids = from === undefined ? undefined : idsOf(from, rows)
    const before = to.before === null ? null : table.rows.rowAt(to.before)?.id
    if (ids === undefined || before === undefined || isWaiting.current) return
    if (before !== null && ids.includes(before)) return
    isWaiting.current = true
    const section = group === null ? sectionBeside(table, to) : to.group.key || null
    const result = await send({ slug, id: node.id, rows: [...ids], before, section })
    if (result.data === undefined) {
      isWaiting.current = false
      const { title, detail } = result.error as Problem
      dispatch(say({ text: `${title} ${detail}` }))
    } else
      dispatch(say({ text: `${counted(ids.length, 'row', 'rows')} moved.`, revision: result.data.revision }))
  }
  return {
    mayPut,
    target,
    drag: (event, position) => {
      if (!mayPut) return
      const { block } = table
      const isOfBlock = position >= block.top && position <= block.bottom
      const rows = isOfBlock ? block : { top: position, bottom: position }
      beginDrag(event, {
        scroll: scroll.current,
        onMove: (_, y) => setTarget(targetAt(lines, body.current, y)),
        onDrop: (_, y) => {
          const to = targetAt(lines, body.current, y)
          if (to !== undefined) void put(rows, to)
        },
        onEnd: () => setTarget(undefined),
      })
    },
    step: step => {
      const { block, selection } = table
      const to = mayPut && !isWaiting.current ? lines.stepOf(block, step) : undefined
      if (to === undefined) return
      void put(block, to)
      // Into another group it goes without another row between.
      if (group !== null && (table.rows.rowAt(block.top)?.section ?? '') !== to.group.key) return
      table.select({ ...selection.from, row: selection.from.row + step })
      table.select({ ...selection.at, row: selection.at.row + step }, true)
    },
  }
}

/** Nothing where one of them is not known yet. */
function idsOf(rows: RowsAt, { top, bottom }: Rows): string[] | undefined {
  const ids: string[] = []
  for (let position = top; position <= bottom; position += 1) {
    const row = rows.rowAt(position)
    if (row === undefined) return undefined
    ids.push(row.id)
  }
  return ids
}

/** Where rows are shown without their sections: the one of the row that they go before, or of the last one. */
const sectionBeside = ({ rows, count }: TableState, { before }: RowTarget): string | null =>
  rows.rowAt(before ?? count - 1)?.section ?? null

function targetAt(lines: Lines, body: HTMLElement | null, y: number): RowTarget | undefined {
  if (body === null) return undefined
  const line = (y - body.getBoundingClientRect().top) / lineHeight
  const at = Math.max(0, Math.min(lines.count - 1, Math.floor(line)))
  return lines.putAt(at, line - at >= 0.5)
}
