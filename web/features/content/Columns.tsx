import { useState } from 'react'
import type { ColumnView, NodeView } from '#contract/views/content.ts'
import type { PrincipalName } from '#contract/views/names.ts'
import { type Action, type ActionSet, has } from '#core/levels/action.ts'
import { listed } from '#core/words/english.ts'
import { useColumnsQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { ChangeColumn, CreateColumn, DeleteColumn } from './ColumnForms.tsx'

type Open = { readonly of: 'new' } | { readonly of: 'change' | 'delete'; readonly column: string }

/** The columns of a board that one may know of; to whoever decides about them, who sees and who edits each. */
export function Columns({ node }: { readonly node: NodeView }) {
  const { slug } = useHere()
  const { data: columns = [] } = useColumnsQuery({ slug, id: node.id })
  const [open, setOpen] = useState<Open>()
  const may = (action: Action) => has(node.actions as ActionSet, action)
  const [mayArrange, mayShare] = [may('arrange'), may('share')]
  const close = () => setOpen(undefined)
  if (columns.length === 0 && !mayArrange) return null
  const onOpen = (of: 'change' | 'delete', column: string) => setOpen({ of, column })
  return (
    <section aria-label="Columns" className="mb-5">
      <h2 className="mb-1 font-bold">Columns</h2>
      {columns.length === 0 ? (
        <p className="quiet mb-2 text-sm">This board has no columns.</p>
      ) : (
        <Listed columns={columns} mayShare={mayShare} onOpen={mayArrange ? onOpen : undefined} />
      )}
      {mayArrange && open === undefined && (
        <button type="button" className="btn-inline text-sm" onClick={() => setOpen({ of: 'new' })}>
          Create column …
        </button>
      )}
      {open !== undefined && (
        <Opened node={node} columns={columns} open={open} mayShare={mayShare} onDone={close} />
      )}
      <p className="quiet mt-1.5 text-sm">Columns have no values yet: boards get them in a later version.</p>
    </section>
  )
}

interface OpenedProps {
  readonly node: NodeView
  readonly columns: readonly ColumnView[]
  readonly open: Open
  readonly mayShare: boolean
  readonly onDone: () => void
}

function Opened({ node, columns, open, mayShare, onDone }: OpenedProps) {
  const chosen = open.of === 'new' ? undefined : columns.find(each => each.id === open.column)
  return (
    <div className="max-w-xl">
      {open.of === 'new' && (
        <CreateColumn node={node} mayShare={mayShare} last={columns.at(-1)?.order ?? 0} onDone={onDone} />
      )}
      {open.of === 'change' && chosen !== undefined && (
        <ChangeColumn key={chosen.id} column={chosen} mayShare={mayShare} onDone={onDone} />
      )}
      {open.of === 'delete' && chosen !== undefined && (
        <DeleteColumn key={chosen.id} column={chosen} onDone={onDone} />
      )}
    </div>
  )
}

interface ListedProps {
  readonly columns: readonly ColumnView[]
  readonly mayShare: boolean
  readonly onOpen: ((of: 'change' | 'delete', column: string) => void) | undefined
}

const Listed = ({ columns, mayShare, onOpen }: ListedProps) => (
  <table className="sheet mb-2">
    <thead>
      <tr>
        <th scope="col">Column</th>
        <th scope="col">{mayShare ? 'Who can see it' : 'You can'}</th>
        {mayShare && <th scope="col">Who can edit it</th>}
        {onOpen !== undefined && (
          <th scope="col" className="w-px">
            <span className="sr-only">Change or delete</span>
          </th>
        )}
      </tr>
    </thead>
    <tbody>
      {columns.map(column => (
        <Row
          key={column.id}
          column={column}
          mayShare={mayShare}
          onOpen={onOpen === undefined ? undefined : of => onOpen(of, column.id)}
        />
      ))}
    </tbody>
  </table>
)

interface RowProps {
  readonly column: ColumnView
  readonly mayShare: boolean
  readonly onOpen: ((of: 'change' | 'delete') => void) | undefined
}

const Row = ({ column: { name, mine, isRestricted, viewers, editors }, mayShare, onOpen }: RowProps) => (
  <tr>
    <td className="font-semibold">
      {name}
      {isRestricted && <span className="text-sm font-normal text-warning"> · restricted</span>}
    </td>
    <td>{mayShare ? namesOf(viewers, 'Everyone') : mine === 'edit' ? 'see and edit it' : 'see it'}</td>
    {mayShare && <td>{namesOf(editors, 'Everyone')}</td>}
    {onOpen !== undefined && (
      <td className="whitespace-nowrap">
        <span className="flex gap-1.5 text-sm">
          <button
            type="button"
            className="btn-inline"
            aria-label={`Change the column ${name}`}
            onClick={() => onOpen('change')}
          >
            Change …
          </button>
          <button
            type="button"
            className="btn-inline text-error"
            aria-label={`Delete the column ${name}`}
            onClick={() => onOpen('delete')}
          >
            Delete …
          </button>
        </span>
      </td>
    )}
  </tr>
)

/** Stewards of the board are never kept out. */
const namesOf = (names: readonly PrincipalName[] | null, everyone: string) =>
  names === null ? (
    <span className="quiet">{everyone}</span>
  ) : (
    listed([...names.map(each => each.name), 'stewards'])
  )
