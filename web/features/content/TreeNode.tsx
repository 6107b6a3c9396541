import { ChevronRight } from 'lucide-react'
import { createContext, memo, type MouseEvent, useContext, useEffect, useRef } from 'react'
import type { TreeItem } from '#contract/views/content.ts'
import { useChildrenQuery } from '../../api/api.ts'
import { useAppDispatch, useAppSelector } from '../../store/store.ts'
import { openNode } from '../../store/view.ts'
import { BreakSign } from '../../ui/BreakSign.tsx'
import { Gauge } from '../../ui/Gauge.tsx'
import { onMovingKey, usePlaceDrag } from './moving.ts'
import { PickBox } from './Picking.tsx'
import { useLevelName } from '../../ui/own-levels.ts'
import { KindIcon } from '../../ui/KindIcon.tsx'

/** What all places of a tree have in common. Some hundreds stand in it: a click draws anew only what it changes. */
export interface InTree {
  readonly slug: string
  readonly isPicking: boolean
  /** Goes to a place. */
  readonly onGo: (id: string) => void
}

export const TreeContext = createContext<InTree>({ slug: '', isPicking: false, onGo: () => {} })

interface Props {
  readonly item: TreeItem
  readonly depth: number
}

/** One place in the tree with one's own level there; what is in it is asked for when it is opened. */
export const TreeNode = memo(function TreeNode({ item, depth }: Props) {
  const { isPicking } = useContext(TreeContext)
  const dispatch = useAppDispatch()
  const isOpen = useAppSelector(state => item.hasChildren && state.view.openNodes[item.id] === true)
  const { isTarget, isCut, handlers } = usePlaceDrag(item)
  return (
    // What is out of sight is not drawn until it comes into it.
    <li className="[contain-intrinsic-size:auto_31px] [content-visibility:auto]">
      <div
        className={`flex items-center gap-1.5 pr-3 hover:bg-base-200 ${isTarget ? 'bg-open outline-2 -outline-offset-2 outline-primary' : ''} ${isCut ? 'opacity-60' : ''}`}
        style={{ paddingLeft: `${depth * 1.1 + 0.35}rem` }}
        {...handlers}
        onKeyDown={event => {
          if (onMovingKey(dispatch, event, item)) event.preventDefault()
        }}
      >
        {item.hasChildren ? (
          <button
            type="button"
            data-tree-toggle
            tabIndex={-1}
            aria-expanded={isOpen}
            aria-label={`Places in ${item.name}`}
            className="cursor-pointer p-1"
            onClick={() => dispatch(openNode({ id: item.id, open: !isOpen }))}
          >
            <ChevronRight size={13} className={isOpen ? 'rotate-90' : ''} aria-hidden />
          </button>
        ) : (
          <span className="w-[21px]" />
        )}
        {isPicking && <PickBox item={item} />}
        <Way item={item} />
        {item.isBroken && item.home !== 'person' && <BreakSign />}
        <Gauge actions={item.actions} />
      </div>
      {isOpen && <Inside item={item} depth={depth} />}
    </li>
  )
})

/** A link as any other; a link of the router would look anew where it leads at each step, in every row. */
function Way({ item }: Pick<Props, 'item'>) {
  const { slug, onGo } = useContext(TreeContext)
  const levelName = useLevelName()
  const isHere = useAppSelector(state => state.view.place === item.id)
  const way = useRef<HTMLAnchorElement>(null)
  useEffect(() => {
    if (isHere) way.current?.scrollIntoView({ block: 'nearest' })
  }, [isHere])
  const onClick = (event: MouseEvent) => {
    const isPlain = event.button === 0 && !event.metaKey && !event.ctrlKey && !event.shiftKey && !event.altKey
    if (!isPlain) return
    event.preventDefault()
    onGo(item.id)
  }
  return (
    <a
      ref={way}
      href={`/at/${slug}/content/${item.id}`}
      data-tree-link
      // It is dragged as a place, not as an address.
      draggable={false}
      title={`${item.name}, your access: ${levelName(item.actions)}`}
      aria-current={isHere ? 'page' : undefined}
      className={`flex min-w-0 grow items-center gap-2 py-[5px] -outline-offset-2 ${isHere ? 'font-bold [&>span]:underline [&>span]:decoration-2 [&>span]:decoration-primary [&>span]:underline-offset-4' : ''}`}
      onClick={onClick}
    >
      <KindIcon kind={item.kind} isHome={item.home !== null} />
      <span className="grow truncate">{item.name}</span>
    </a>
  )
}

function Inside({ item, depth }: Props) {
  const { slug } = useContext(TreeContext)
  const { data: children = [] } = useChildrenQuery({ slug, id: item.id })
  if (children.length === 0) return null
  return (
    <ul>
      {children.map(child => (
        <TreeNode key={child.id} item={child} depth={depth + 1} />
      ))}
    </ul>
  )
}
