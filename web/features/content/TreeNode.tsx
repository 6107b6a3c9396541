import { ChevronRight } from 'lucide-react'
import { NavLink } from 'react-router'
import type { TreeItem } from '#contract/views.ts'
import { useChildrenQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { useAppDispatch, useAppSelector } from '../../store/store.ts'
import { openNode } from '../../store/view.ts'
import { BreakSign } from '../../ui/BreakSign.tsx'
import { Gauge } from '../../ui/Gauge.tsx'
import { PickBox } from './Picking.tsx'
import { useLevelName } from '../../ui/own-levels.ts'
import { KindIcon } from '../../ui/KindIcon.tsx'

interface Props {
  readonly item: TreeItem
  readonly depth: number
}

/** One place in the tree with one's own level there; what is in it is asked for when it is opened. */
export function TreeNode({ item, depth }: Props) {
  const { slug } = useHere()
  const dispatch = useAppDispatch()
  const levelName = useLevelName()
  const isPicking = useAppSelector(state => state.view.isPicking)
  const isOpen = useAppSelector(state => item.hasChildren && state.view.openNodes[item.id] === true)
  const { data: children = [] } = useChildrenQuery({ slug, id: item.id }, { skip: !isOpen })
  return (
    <li>
      <div
        className="flex items-center gap-1.5 pr-3 hover:bg-base-200"
        style={{ paddingLeft: `${depth * 1.1 + 0.35}rem` }}
      >
        {item.hasChildren ? (
          <button
            type="button"
            data-tree-toggle
            tabIndex={-1}
            aria-expanded={isOpen}
            aria-label={`What is in ${item.name}`}
            className="cursor-pointer p-1"
            onClick={() => dispatch(openNode({ id: item.id, open: !isOpen }))}
          >
            <ChevronRight size={13} className={isOpen ? 'rotate-90' : ''} aria-hidden />
          </button>
        ) : (
          <span className="w-[21px]" />
        )}
        {isPicking && <PickBox item={item} />}
        <NavLink
          to={`/at/${slug}/content/${item.id}`}
          data-tree-link
          title={`${item.name}: you have ${levelName(item.actions)}`}
          className={({ isActive }) =>
            `flex min-w-0 grow items-center gap-2 py-[5px] ${isActive ? 'font-bold [&>span]:underline [&>span]:decoration-2 [&>span]:decoration-primary [&>span]:underline-offset-4' : ''}`
          }
        >
          <KindIcon kind={item.kind} isHome={item.home !== null} />
          <span className="grow truncate">{item.name}</span>
        </NavLink>
        {item.isBroken && item.home !== 'person' && <BreakSign />}
        <Gauge actions={item.actions} />
      </div>
      {isOpen && children.length > 0 && (
        <ul>
          {children.map(child => (
            <TreeNode key={child.id} item={child} depth={depth + 1} />
          ))}
        </ul>
      )}
    </li>
  )
}
