import { columnWidths } from '#core/boards/view.ts'
import { useSaveOwnColumnsMutation } from '../../api/boards.ts'
import { useChange } from '../../api/use-change.ts'
import { useOpenBoard } from './board-context.ts'

export interface ColumnOrder {
  /** Whether it went there: the name stays the first. */
  readonly move: (from: number, to: number) => boolean
  readonly hide: (column: string) => void
  readonly resize: (column: string, width: number) => void
  /** By one step, wider or narrower. */
  readonly widen: (index: number, step: -1 | 1) => void
  /** As it is, for all who see the board; nothing where it is so, or one may not. */
  readonly keepForAll: (() => void) | undefined
  readonly showAll: () => void
}

const widthStep = 24

/**
 * How one wants to see the columns: where a saved view is open that holds columns it is the view that changes, else it is
 * one's own and kept for the next visit.
 */
export function useColumnOrder(): ColumnOrder {
  const { slug, node, info, view, shown, mayArrange } = useOpenBoard()
  const [save] = useSaveOwnColumnsMutation()
  const { apply } = useChange(slug)
  const now = shown.map(({ id, width }) => ({ column: id, width }))
  const put = (columns: typeof now) => {
    const hidden = info.columns.map(each => each.id).filter(id => !columns.some(each => each.column === id))
    if (view.isOfColumns) view.change({ columns })
    else void save({ slug, id: node.id, columns: { shown: columns, hidden } })
  }
  const resize = (column: string, width: number) =>
    put(now.map(each => (each.column === column ? { ...each, width: within(width) } : each)))
  const order = shown.flatMap(({ column }) => column ?? [])
  const isForAll = order.every((each, nth) => each === info.columns.filter(one => order.includes(one))[nth])
  return {
    move: (from, to) => {
      const moved = now[from]
      if (moved === undefined || from < 1 || to < 1 || to >= now.length || from === to) return false
      const others = now.filter(each => each !== moved)
      put([...others.slice(0, to), moved, ...others.slice(to)])
      return true
    },
    hide: column => put(now.filter(each => each.column !== column)),
    resize,
    widen: (index, step) => {
      const column = shown[index]
      if (column !== undefined) resize(column.id, column.width + step * widthStep)
    },
    keepForAll:
      !mayArrange || isForAll
        ? undefined
        : () => {
            const others = info.columns.filter(each => !order.includes(each))
            const edits = [...order, ...others].flatMap((each, nth) =>
              each.order === nth + 1
                ? []
                : [{ kind: 'column.change', column: each.id, order: nth + 1 } as const],
            )
            void apply(edits, 'The columns stand in this order for all.')
          },
    showAll: () => {
      if (view.isOfColumns) view.change({ columns: null })
      void save({ slug, id: node.id, columns: null })
    },
  }
}

const within = (width: number): number =>
  Math.round(Math.max(columnWidths.least, Math.min(columnWidths.most, width)))
