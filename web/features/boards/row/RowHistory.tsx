import type { RowChangeView, RowDetail } from '#contract/views/boards.ts'
import { useRowHistoryQuery } from '../../../api/boards.ts'
import { Day, Time } from '../../../ui/dates.tsx'
import { useOpenBoard } from '../board-context.ts'

/** What was written in the row, the newest first; what still stands there can be taken back. */
export function RowHistory({ detail }: { readonly detail: RowDetail }) {
  const { slug } = useOpenBoard()
  const { data = [] } = useRowHistoryQuery({ slug, id: detail.row.id })
  if (data.length === 0) return <p className="quiet">Nothing was written in this row since it was created.</p>
  return (
    <ol className="grid gap-3">
      {data.map(step => (
        <li key={step.version}>
          <p className="quiet text-sm">
            <Day at={step.at} />, <Time at={step.at} /> {step.by !== null && `· ${step.by}`}
          </p>
          <ul>
            {step.changes.map(change => (
              <li key={change.column} className="flex items-baseline gap-2">
                <span className="min-w-0 grow break-words">
                  <span className="quiet">{nameOf(detail, change.column)}: </span>
                  {change.was !== '' && <s className="quiet">{change.was}</s>}{' '}
                  {change.is === '' ? 'emptied' : change.is}
                </span>
                <TakeBack detail={detail} change={change} />
              </li>
            ))}
          </ul>
        </li>
      ))}
    </ol>
  )
}

const nameOf = ({ columns }: RowDetail, id: string): string =>
  id === 'name' ? 'Name' : (columns.find(each => each.id === id)?.name ?? '')

interface TakeBackProps {
  readonly detail: RowDetail
  readonly change: RowChangeView['changes'][number]
}

function TakeBack({ detail: { row, columns }, change }: TakeBackProps) {
  const { writing } = useOpenBoard()
  const column = columns.find(each => each.id === change.column)
  const mayWrite = row.mayEdit && (change.column === 'name' || column?.isMine === true)
  if (!change.isLast || !mayWrite || (change.column === 'name' && change.was === '')) return null
  return (
    <button
      type="button"
      className="btn-inline shrink-0 text-sm"
      aria-label={`Put back ${nameOf({ columns } as RowDetail, change.column)}`}
      onClick={() =>
        void writing.write([
          {
            row: row.id,
            column: change.column,
            value: change.before,
            before: change.after,
            seen: row.version,
          },
        ])
      }
    >
      Put back
    </button>
  )
}
