import { type ReactNode, useCallback, useRef, useState } from 'react'
import { Link } from 'react-router'
import type { RowDetail } from '#contract/views/boards.ts'
import type { NodeView } from '#contract/views/content.ts'
import { plainView } from '#core/boards/view.ts'
import { useRowQuery } from '../../../api/boards.ts'
import { useHere } from '../../../api/use-here.ts'
import { BoardContext } from '../board-context.ts'
import { ReadingContext } from '../cells/reading.ts'
import { type Linked, OutOfReach } from '../OutOfReach.tsx'
import { Unwritten } from '../Unwritten.tsx'
import { useUsage } from '../use-usage.ts'
import { useWriting } from '../use-writing.ts'
import { Comments } from './Comments.tsx'
import { RowHistory } from './RowHistory.tsx'
import { RowValues } from './RowValues.tsx'

/** A row alone: for whoever comes by its address, and for who sees it without its board. */
export function RowScreen({ node }: { readonly node: NodeView }) {
  const { slug } = useHere()
  const { data } = useRowQuery({ slug, id: node.id })
  return data === undefined ? <div aria-busy /> : <Known node={node} detail={data} />
}

function Known({ node, detail }: { readonly node: NodeView; readonly detail: RowDetail }) {
  const { slug } = useHere()
  const { columns, sections, today, timeZone, names } = detail
  const namesNow = useCallback(() => names, [names])
  const usage = useUsage({ today, timeZone, namesNow })
  const [writing] = useWriting({ slug, id: node.id })
  const [linked, setLinked] = useState<Linked>()
  const chosenRef = useRef(() => Promise.resolve([]))
  const nothing = () => {}
  const board = {
    slug,
    node,
    info: { columns, sections, views: [], ownViews: [], ownColumns: null, today, timeZone },
    view: {
      view: plainView,
      parameters: {},
      saved: null,
      isOfColumns: false,
      row: node.id,
      change: nothing,
      open: nothing,
      openRow: nothing,
    },
    shown: columns.map(column => ({ id: column.id, name: column.name, column, width: 0 })),
    usage,
    writing,
    mayArrange: false,
    mayShare: false,
    mayAdd: false,
    placeNames: () => [],
    chosenRef,
    binChosen: () => {},
    onLinked: setLinked,
    openPanel: nothing,
  }
  return (
    <BoardContext value={board}>
      <ReadingContext value={{ slug, timeZone, usage }}>
        <WayToBoard detail={detail} row={node.id} />
        <Unwritten writing={writing} />
        <OutOfReach linked={linked} onClose={() => setLinked(undefined)} />
        <div className="max-w-2xl">
          <RowValues detail={detail} />
          <Part title="Comments">
            <Comments id={node.id} />
          </Part>
          <details className="mt-5">
            <summary className="cursor-pointer font-bold">History</summary>
            <div className="mt-2">
              <RowHistory detail={detail} />
            </div>
          </details>
        </div>
      </ReadingContext>
    </BoardContext>
  )
}

function WayToBoard({ detail, row }: { readonly detail: RowDetail; readonly row: string }) {
  const { slug } = useHere()
  if (!detail.seesBoard) return null
  return (
    <p className="mb-3 text-sm">
      <Link className="link underline" to={`/at/${slug}/content/${detail.board.id}?row=${row}`}>
        Show it on its board {detail.board.name}
      </Link>
    </p>
  )
}

const Part = ({ title, children }: { readonly title: string; readonly children: ReactNode }) => (
  <section className="mt-5">
    <h2 className="mb-1 font-bold">{title}</h2>
    {children}
  </section>
)
