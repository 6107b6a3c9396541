import { type ComponentType, type ReactNode, useEffect } from 'react'
import { useParams } from 'react-router'
import type { NodeView } from '#contract/views/content.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { kindsWithin } from '#core/tree/node.ts'
import { useNodeQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { useAppDispatch, useAppSelector } from '../../store/store.ts'
import { openNodes, visit } from '../../store/view.ts'
import { DropArea } from './files/DropArea.tsx'
import { FileContent } from './files/FileContent.tsx'
import type { UploadTo } from '../../api/use-upload.ts'
import { NodeHeader } from './NodeHeader.tsx'
import { PageText } from './PageText.tsx'
import { Within } from './Within.tsx'

interface Props {
  /** What stands at the right of an open place. */
  readonly access: ComponentType<{ readonly node: NodeView }>
  /** A board, with its rows. */
  readonly board: ComponentType<{
    readonly node: NodeView
    readonly header: ReactNode
    readonly access: Props['access']
    readonly accessHere: Props['accessHere']
  }>
  /** The same of a place that is shown beside another. */
  readonly accessHere: ComponentType<{ readonly node: NodeView }>
  /** What stands in a row. */
  readonly row: ComponentType<{ readonly node: NodeView }>
  /** What stands in the place of one that one may not open, or that is not there. */
  readonly noAccess: ComponentType<{ readonly address: string }>
}

/** An open place in the middle, its access at the right. */
export function NodeScreen({
  access: Access,
  accessHere,
  board: Board,
  row: Row,
  noAccess: NoAccess,
}: Props) {
  const { slug, workspace } = useHere()
  const { id = '' } = useParams()
  const { data: node, isError } = useNodeQuery({ slug, id })
  useTreeOpenTo(node)
  useVisited(node, workspace.me.id)
  const isFolded = useAppSelector(state => state.view.accessFolded)
  if (isError) return <NoAccess key={id} address={id} />
  if (node === undefined || node.id !== id) return <main aria-busy />
  const actions = node.actions as ActionSet
  const mayEdit = has(actions, 'change') || (has(actions, 'add') && node.madeBy === workspace.me.name)
  if (node.kind === 'board')
    return (
      <Board
        key={id}
        node={node}
        header={<NodeHeader node={node} mayEdit={mayEdit} />}
        access={Access}
        accessHere={accessHere}
      />
    )
  return (
    <div
      className={`grid min-h-0 ${isFolded ? 'md:grid-cols-[minmax(0,1fr)_2.75rem]' : 'md:grid-cols-[minmax(0,1fr)_22rem]'}`}
    >
      <DropArea key={id} to={uploadTo(node, mayEdit)} className="min-h-0 overflow-y-auto px-6 py-3">
        <NodeHeader node={node} mayEdit={mayEdit} />
        {node.kind === 'row' && <Row node={node} />}
        {node.kind === 'page' && <PageText id={id} mayEdit={mayEdit} />}
        {node.kind === 'file' && <FileContent id={id} name={node.name} mayEdit={mayEdit} />}
        <Within node={node} mayAdd={has(actions, 'add')} />
      </DropArea>
      <Access key={`access ${id}`} node={node} />
    </div>
  )
}

/** Where files go that are dropped here; nowhere, for who may not. */
function uploadTo({ id, kind, name, actions }: NodeView, mayEdit: boolean): UploadTo | undefined {
  if (kind === 'file') return mayEdit ? { place: id, name, isVersion: true } : undefined
  const takesFiles = kindsWithin(kind).includes('file') && has(actions as ActionSet, 'add')
  return takesFiles ? { place: id, name, isVersion: false } : undefined
}

/** Where one was is found again on arriving. */
function useVisited(node: NodeView | undefined, person: string): void {
  const dispatch = useAppDispatch()
  const place = node?.id
  useEffect(() => {
    if (place !== undefined) dispatch(visit({ person, place }))
  }, [dispatch, place, person])
}

/** Once for each place that is opened, by whatever way: what one closes in the tree after that stays closed. */
function useTreeOpenTo(node: NodeView | undefined): void {
  const dispatch = useAppDispatch()
  const id = node?.id
  // As words, to be the same as long as it is the same way down.
  const above = node?.path.map(({ id }) => id).join(' ') ?? ''
  useEffect(() => {
    if (above !== '') dispatch(openNodes(above.split(' ')))
  }, [dispatch, id, above])
}
