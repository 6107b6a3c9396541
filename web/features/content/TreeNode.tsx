import { ChevronRight } from 'lucide-react'
import { NavLink } from 'react-router'
import type { TreeItem } from '#contract/views.ts'
import type { ActionSet } from '#core/levels/action.ts'
import { nameOfActions } from '#core/levels/level.ts'
import { useChildrenQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { useAppDispatch, useAppSelector } from '../../store/store.ts'
import { openNode } from '../../store/view.ts'
import { Gauge } from '../../ui/Gauge.tsx'
import { KindIcon } from '../../ui/KindIcon.tsx'

interface Props {
  readonly item: TreeItem
  readonly depth: number
}

/** One place in the tree with one's own level there; what is in it is asked for when it is opened. */
export function TreeNode({ item, depth }: Props) {
  const { slug } = useHere()
  const dispatch = useAppDispatch()
  const isOpen = useAppSelector(state => item.hasChildren && state.view.openNodes[item.id] === true)
  const { data: children = [] } = useChildrenQuery({ slug, id: item.id }, { skip: !isOpen })
  return (
    <li>
      {item.isBroken && item.home !== 'person' && <TornEdge depth={depth} />}
      <div
        className="flex items-center pr-3 hover:bg-base-200"
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
        <NavLink
          to={`/at/${slug}/content/${item.id}`}
          data-tree-link
          title={`${item.name}: you have ${nameOfActions(item.actions as ActionSet).name}`}
          className={({ isActive }) =>
            `flex min-w-0 grow items-center gap-2 py-[5px] ${isActive ? 'font-bold [&>span]:underline [&>span]:decoration-2 [&>span]:decoration-primary [&>span]:underline-offset-4' : ''}`
          }
        >
          <KindIcon kind={item.kind} isHome={item.home !== null} />
          <span className="grow truncate">{item.name}</span>
        </NavLink>
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

/** Where inheritance is broken: grants from above end here, as a torn edge above the place. */
const TornEdge = ({ depth }: { readonly depth: number }) => (
  <svg
    className="block text-error"
    style={{ marginLeft: `${depth * 1.1 + 1.75}rem` }}
    width="120"
    height="5"
    viewBox="0 0 120 5"
    role="img"
    aria-label="inheritance is broken"
  >
    <path d={`M0 4${'l3 -3l3 3'.repeat(20)}`} fill="none" stroke="currentColor" strokeWidth="1.2" />
  </svg>
)
