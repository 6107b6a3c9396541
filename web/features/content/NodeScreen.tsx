import { useParams } from 'react-router'
import { type ActionSet, has } from '#core/levels/action.ts'
import { useNodeQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { useAppSelector } from '../../store/store.ts'
import { AccessColumn } from './AccessColumn.tsx'
import { Columns } from './Columns.tsx'
import { NodeHeader } from './NodeHeader.tsx'
import { PlaceActs } from './PlaceActs.tsx'
import { PageText } from './PageText.tsx'
import { Within } from './Within.tsx'

/** An open place in the middle, its access at the right. */
export function NodeScreen() {
  const { slug, workspace } = useHere()
  const { id = '' } = useParams()
  const { data: node, isError } = useNodeQuery({ slug, id })
  const isFolded = useAppSelector(state => state.view.accessFolded)
  if (isError)
    return (
      <main className="px-6 py-6">
        <h1 className="mb-2 text-xl font-bold">There is nothing here that you can open.</h1>
        <p>It may have been moved or taken away, or it was never opened to you.</p>
      </main>
    )
  if (node === undefined || node.id !== id) return <main aria-busy />
  const actions = node.actions as ActionSet
  const mayEdit = has(actions, 'change') || (has(actions, 'add') && node.madeBy === workspace.me.name)
  return (
    <div
      className={`grid min-h-0 ${isFolded ? 'grid-cols-[minmax(0,1fr)_2.75rem]' : 'grid-cols-[minmax(0,1fr)_22rem]'}`}
    >
      <main key={id} className="min-h-0 overflow-y-auto px-6 py-3">
        <NodeHeader node={node} mayEdit={mayEdit} />
        <PlaceActs node={node} mayEdit={mayEdit} />
        {node.kind === 'board' && <Columns node={node} />}
        {node.kind === 'page' && <PageText id={id} mayEdit={mayEdit} />}
        <Within node={node} mayAdd={has(actions, 'add')} />
      </main>
      <AccessColumn key={`access ${id}`} node={node} />
    </div>
  )
}
