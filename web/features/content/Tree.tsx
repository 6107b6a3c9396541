import { type KeyboardEvent, useEffect, useMemo, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { TreeItem, TreeView } from '#contract/views/content.ts'
import { api, useBinQuery, useTreeQuery } from '../../api/api.ts'
import { placesWords } from '#core/words/english.ts'
import { useHere } from '../../api/use-here.ts'
import { useAppDispatch, useAppSelector } from '../../store/store.ts'
import { showPlace } from '../../store/view.ts'
import { PickSeveral } from './Picking.tsx'
import { type InTree, TreeContext, TreeNode } from './TreeNode.tsx'
import { moveInTree } from './tree-keys.ts'

/** The content tree as its reader finds it: what is theirs, what was opened for them, then the homes. */
export function Tree() {
  const { slug, workspace } = useHere()
  const { data: tree } = useTreeQuery(slug)
  const { id } = useParams()
  const dispatch = useAppDispatch()
  useEffect(() => {
    dispatch(showPlace(id ?? null))
  }, [dispatch, id])
  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    if (moveInTree(event.currentTarget, event.key)) event.preventDefault()
  }
  return (
    <nav
      aria-label="Content"
      className={`flex flex-col border-base-300 py-2 md:min-h-0 md:overflow-y-auto md:border-r ${id === undefined ? '' : 'max-md:hidden'}`}
      onKeyDown={onKeyDown}
    >
      {tree !== undefined && <Parts tree={tree} />}
      {workspace.me.privileges.includes('create homes') && (
        <Link className="link mx-4 mt-3 py-0.5 text-sm" to={`/at/${slug}/content/new-home`}>
          Create shared home
        </Link>
      )}
      {workspace.me.kind === 'member' && <PickSeveral className="btn-inline mx-4 mt-3 self-start text-sm" />}
      <Bin />
    </nav>
  )
}

/** The way to the bin, where something lies in it. */
function Bin() {
  const { slug } = useHere()
  const { data: binned = [] } = useBinQuery(slug)
  if (binned.length === 0) return null
  return (
    <Link className="link mx-4 mt-2 text-sm" to={`/at/${slug}/content/bin`}>
      Bin: {placesWords(binned.length)}
    </Link>
  )
}

function Parts({ tree }: { readonly tree: TreeView }) {
  const { slug } = useHere()
  const isPicking = useAppSelector(state => state.view.isPicking)
  const navigate = useNavigate()
  const askForNode = api.usePrefetch('node')
  const askForAccess = api.usePrefetch('access')
  const inTree = useMemo<InTree>(() => {
    // What will be shown is asked for at once, not as each part of the screen comes to it.
    const onGo = (id: string) => {
      askForNode({ slug, id })
      askForAccess({ slug, id })
      void navigate(`/at/${slug}/content/${id}`)
    }
    return { slug, isPicking, onGo }
  }, [slug, isPicking, navigate, askForNode, askForAccess])
  if (tree.kept === null && tree.opened.length + tree.homes.length === 0)
    return (
      <p className="px-4 py-3">
        Nothing is shared with you yet. The person who invited you can share a place with you.
      </p>
    )
  return (
    <TreeContext value={inTree}>
      <Part label="My private folder" items={tree.kept === null ? [] : [tree.kept]} isAlone />
      <Part label="Shared with me" items={tree.opened} />
      <Part label="Shared homes" items={tree.homes.filter(home => home.home === 'shared')} />
      <Part label="Team homes" items={tree.homes.filter(home => home.home === 'team')} />
    </TreeContext>
  )
}

interface PartProps {
  readonly label: string
  readonly items: readonly TreeItem[]
  /** The one item says what the part is: no heading above it. */
  readonly isAlone?: boolean
}

/** More than these are seldom looked through: they are found by name. */
const shownAtOnce = 100

function Part({ label, items, isAlone = false }: PartProps) {
  const [shown, setShown] = useState(shownAtOnce)
  const more = Math.min(shownAtOnce, items.length - shown)
  if (items.length === 0) return null
  return (
    <section className="mb-2">
      {!isAlone && <h2 className="quiet px-4 pt-2 pb-0.5 text-sm">{label}</h2>}
      <ul aria-label={label}>
        {items.slice(0, shown).map(item => (
          <TreeNode key={item.id} item={item} depth={0} />
        ))}
      </ul>
      {more > 0 && (
        <button type="button" className="btn-inline mx-4 mt-1 text-sm" onClick={() => setShown(shown + more)}>
          Show {more} more of {items.length}
        </button>
      )}
    </section>
  )
}
