import { useState } from 'react'
import { Link } from 'react-router'
import type { NodeView, PlaceChangeView, TreeItem } from '#contract/views/content.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { kindsWithin, type NodeKind } from '#core/tree/node.ts'
import { sizeWords } from '#core/words/sizes.ts'
import { useChangesWithinQuery } from '../../api/api.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { useAppDispatch, useAppSelector } from '../../store/store.ts'
import { openNode } from '../../store/view.ts'
import { Day } from '../../ui/dates.tsx'
import { Level } from '../../ui/Gauge.tsx'
import { KindIcon } from '../../ui/KindIcon.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { Arranging } from './Arranging.tsx'
import { Thumbnail } from './files/Thumbnail.tsx'
import { UploadButton } from './files/UploadButton.tsx'
import { onMovingKey, usePlaceDrag } from './moving.ts'
import { Picked } from './Picked.tsx'
import { PickAll, PickBox, PickSeveral } from './Picking.tsx'

/** What a place holds, and the field that puts more into it. */
export function Within({ node, mayAdd }: { readonly node: NodeView; readonly mayAdd: boolean }) {
  const kinds = kindsWithin(node.kind)
  const [isArranging, setArranging] = useState(false)
  const isPage = node.kind === 'page'
  const isEmpty = node.children.length === 0
  if (kinds.length === 0 || (isPage && isEmpty && !mayAdd)) return null
  return (
    <section aria-label={`In ${node.name}`} className={`@container ${isPage ? 'mt-8' : ''}`}>
      {isPage && <h2 className="mb-1 font-bold">Pages below this page</h2>}
      {isEmpty && !isPage && <Empty mayAdd={mayAdd} />}
      {isArranging ? (
        <Arranging items={node.children} onDone={() => setArranging(false)} />
      ) : (
        <>
          <Picked />
          {!isEmpty && <Listed node={node} />}
          <div className="flex flex-wrap items-start justify-between gap-x-6">
            {mayAdd && <Adding node={node} kinds={kinds} />}
            <Arrange node={node} onArrange={() => setArranging(true)} />
          </div>
        </>
      )}
    </section>
  )
}

/** Something new by its name, and files from the disk. */
const Adding = ({ node, kinds }: AddProps) => (
  <>
    <Add node={node} kinds={kinds.filter(kind => kind !== 'file')} />
    {kinds.includes('file') && <AddFiles node={node} />}
  </>
)

function AddFiles({ node: { id, name } }: { readonly node: NodeView }) {
  const to = { place: id, name, isVersion: false }
  return (
    <div className="mt-3 flex flex-wrap items-center gap-2">
      <UploadButton to={to}>Upload files …</UploadButton>
      <UploadButton to={to} picksFolders>
        Upload a folder …
      </UploadButton>
      <span className="quiet text-sm max-lg:hidden">or drop them here</span>
    </div>
  )
}

const Empty = ({ mayAdd }: { readonly mayAdd: boolean }) => (
  <p className="quiet py-2">{mayAdd ? 'It is empty.' : 'There is nothing in it that you can open.'}</p>
)

const Arrange = ({ node, onArrange }: { readonly node: NodeView; readonly onArrange: () => void }) => (
  <div className="mt-3 flex flex-wrap gap-2">
    {node.children.length > 0 && <PickSeveral className="btn-inline text-sm" />}
    {node.children.length > 1 && has(node.actions as ActionSet, 'arrange') && (
      <button type="button" className="btn-inline text-sm" onClick={onArrange}>
        Arrange by hand …
      </button>
    )}
  </div>
)

function Listed({ node: { id, children: items, limited } }: { readonly node: NodeView }) {
  const { slug } = useHere()
  const { data: changes = [] } = useChangesWithinQuery({ slug, id })
  const changeOf = new Map(changes.map(each => [each.id, each]))
  const isPicking = useAppSelector(state => state.view.isPicking)
  return (
    <table className="sheet">
      <thead>
        <tr>
          {isPicking && (
            <th scope="col" className="w-8">
              <PickAll items={items} />
            </th>
          )}
          <th scope="col">Name</th>
          <th scope="col" className="w-px @max-sm:hidden">
            Kind
          </th>
          <th scope="col" className="@max-lg:hidden">
            Last changed
          </th>
          <th scope="col" className="w-px">
            Your access
          </th>
        </tr>
      </thead>
      <tbody>
        {items.map(item => (
          <ListedPlace
            key={item.id}
            item={item}
            isLimited={limited.includes(item.id)}
            change={changeOf.get(item.id)}
            isPicking={isPicking}
          />
        ))}
      </tbody>
    </table>
  )
}

interface ListedPlaceProps {
  readonly item: TreeItem
  readonly isLimited: boolean
  readonly change: PlaceChangeView | undefined
  readonly isPicking: boolean
}

/** A place in its line; it is moved as it is in the tree. */
function ListedPlace({ item, isLimited, change, isPicking }: ListedPlaceProps) {
  const { slug } = useHere()
  const dispatch = useAppDispatch()
  const { isTarget, isCut, handlers } = usePlaceDrag(item)
  const file = change?.file ?? null
  return (
    <tr
      className={`${isTarget ? 'bg-open outline-2 -outline-offset-2 outline-primary' : ''} ${isCut ? 'opacity-60' : ''}`}
      {...handlers}
      onKeyDown={event => {
        if (onMovingKey(dispatch, event, item)) event.preventDefault()
      }}
    >
      {isPicking && (
        <td>
          <PickBox item={item} />
        </td>
      )}
      <td>
        <Link
          className="flex items-center gap-2 hover:underline"
          draggable={false}
          to={`/at/${slug}/content/${item.id}`}
        >
          <Sign item={item} file={file} />
          <span className="min-w-0 break-words">
            {item.name}
            <Marks item={item} isLimited={isLimited} />
          </span>
        </Link>
      </td>
      <td className="quiet whitespace-nowrap @max-sm:hidden">
        <KindWord item={item} file={file} />
      </td>
      <td className="quiet @max-lg:hidden">
        <LastChange change={change} />
      </td>
      <td className="whitespace-nowrap">
        <Level actions={item.actions} />
      </td>
    </tr>
  )
}

interface OfFile {
  readonly item: TreeItem
  readonly file: PlaceChangeView['file']
}

/** Of a picture or a PDF a small picture, else the sign of its kind. */
function Sign({ item, file }: OfFile) {
  const { slug } = useHere()
  const isShown = file !== null && (file.form === 'picture' || file.form === 'pages')
  return isShown ? (
    <Thumbnail at={{ slug, id: item.id }} className="h-8 w-11" />
  ) : (
    <KindIcon kind={item.kind} />
  )
}

const KindWord = ({ item, file }: OfFile) =>
  file === null ? item.kind : `${item.kind}, ${sizeWords(file.size)}`

const Marks = ({ item, isLimited }: Pick<ListedPlaceProps, 'item' | 'isLimited'>) => (
  <>
    {item.isBroken && <span className="text-sm text-error"> · inheritance broken</span>}
    {[...(isLimited ? ['limited'] : []), ...stateWords(item)].map(word => (
      <span key={word} className="text-sm text-warning">
        {' '}
        · {word}
      </span>
    ))}
  </>
)

const LastChange = ({ change }: { readonly change: PlaceChangeView | undefined }) =>
  change === undefined ? null : (
    <>
      <Day at={change.at} />
      {change.by !== null && ` by ${change.by}`}
    </>
  )

const stateWords = ({ isDraft, isArchived, web }: TreeItem): string[] => [
  ...(isDraft ? ['draft'] : []),
  ...(isArchived ? ['archived'] : []),
  ...(web === null ? [] : [web === 'published' ? 'on the web' : 'kept off the web']),
]

interface AddProps {
  readonly node: NodeView
  readonly kinds: readonly NodeKind[]
}

function Add({ node, kinds }: AddProps) {
  const { slug } = useHere()
  const dispatch = useAppDispatch()
  const { apply, problem, isBusy } = useChange(slug)
  const [name, setName] = useState('')
  const [kind, setKind] = useState<NodeKind>(kinds[0] ?? 'page')
  const submit = async () => {
    const edit = {
      kind: 'node.create',
      node: 'new:node',
      parent: node.id,
      as: kind as Exclude<NodeKind, 'root' | 'file'>,
      name: name.trim(),
    } as const
    const { applied } = await apply([edit], `The ${kind} ${name.trim()} is created.`)
    if (applied === undefined) return
    setName('')
    dispatch(openNode({ id: node.id, open: true }))
  }
  return (
    <form className="mt-3 grid max-w-lg grow gap-2" onSubmit={onSubmit(submit)}>
      <div className="flex gap-2">
        <select
          className="choice w-28"
          aria-label="Kind"
          value={kind}
          onChange={event => setKind(event.target.value as NodeKind)}
        >
          {kinds.map(each => (
            <option key={each}>{each}</option>
          ))}
        </select>
        <input
          className="field"
          aria-label={`Name of the new ${kind}`}
          placeholder={`Name of the new ${kind}`}
          value={name}
          onChange={event => setName(event.target.value)}
        />
        <button className="btn-plain" disabled={isBusy || name.trim() === ''}>
          Add {kind}
        </button>
      </div>
      <ProblemNote problem={problem} />
    </form>
  )
}
