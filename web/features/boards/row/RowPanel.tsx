import { type ComponentType, useState } from 'react'
import { Link } from 'react-router'
import type { RowDetail } from '#contract/views/boards.ts'
import type { NodeView } from '#contract/views/content.ts'
import { useNodeQuery } from '../../../api/api.ts'
import { useRowQuery } from '../../../api/boards.ts'
import { useHere } from '../../../api/use-here.ts'
import { Day } from '../../../ui/dates.tsx'
import { FilterWords } from '../../../ui/FilterWords.tsx'
import { Panel } from '../../../ui/Panel.tsx'
import { Comments } from './Comments.tsx'
import { RowContents } from './RowContents.tsx'
import { RowHistory } from './RowHistory.tsx'
import { RowValues } from './RowValues.tsx'

interface Props {
  readonly id: string
  readonly access: ComponentType<{ readonly node: NodeView }>
  readonly onClose: () => void
}

const parts = ['Row', 'Comments', 'Files', 'History', 'Access'] as const
type Part = (typeof parts)[number]

/** A row beside its board: all that stands in it, what is said about it, its pages and files, how it came so, who has access. */
export function RowPanel({ id, access: Access, onClose }: Props) {
  const { slug } = useHere()
  const { data, isError } = useRowQuery({ slug, id })
  const { data: node } = useNodeQuery({ slug, id })
  const [part, setPart] = useState<Part>('Row')
  if (isError)
    return (
      <Panel title="Row" onClose={onClose}>
        <p>There is no such row that you can open.</p>
      </Panel>
    )
  if (data === undefined || node === undefined)
    return <aside aria-busy aria-label="Row" className="border-l border-base-300" />
  return (
    <Panel title={data.row.name} onClose={onClose}>
      <div className="mb-3 border-b border-base-300 pb-1.5 text-sm">
        <FilterWords label="Parts of the row" words={parts} chosen={part} onChoose={setPart} />
      </div>
      {part === 'Row' && (
        <>
          <Made detail={data} slug={slug} />
          <RowValues detail={data} />
          <h3 className="mt-4 mb-1 text-sm font-bold">Comments</h3>
          <Comments id={id} isShort />
        </>
      )}
      {part === 'Comments' && <Comments id={id} />}
      {part === 'Files' && <RowContents node={node} />}
      {part === 'History' && <RowHistory detail={data} />}
      {part === 'Access' && <Access node={node} />}
    </Panel>
  )
}

const Made = ({
  detail: { row, madeAt, madeBy },
  slug,
}: {
  readonly detail: RowDetail
  readonly slug: string
}) => (
  <p className="quiet mb-2 text-sm">
    {madeBy === null ? 'Created' : `Created by ${madeBy}`} on <Day at={madeAt} />
    {row.isOwnAccess ? ' · own access' : ' · follows the board'} ·{' '}
    <Link className="link underline" to={`/at/${slug}/content/${row.id}`}>
      open alone
    </Link>
  </p>
)
