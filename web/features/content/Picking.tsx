import type { TreeItem } from '#contract/views/content.ts'
import { useAppDispatch, useAppSelector } from '../../store/store.ts'
import { pick, startPicking } from '../../store/view.ts'

/** Picks a place, to be changed with others. */
export function PickBox({ item }: { readonly item: TreeItem }) {
  const dispatch = useAppDispatch()
  const isPicked = useAppSelector(state => state.view.picked.includes(item.id))
  return (
    <input
      type="checkbox"
      className="checkbox checkbox-xs border-base-content/60"
      aria-label={`Select ${item.name}`}
      checked={isPicked}
      onChange={event => dispatch(pick({ id: item.id, isPicked: event.target.checked }))}
    />
  )
}

/** Begins to pick places in the tree and in what is open, or ends it. */
export function PickSeveral({ className }: { readonly className: string }) {
  const dispatch = useAppDispatch()
  const isPicking = useAppSelector(state => state.view.isPicking)
  return (
    <button
      type="button"
      className={className}
      aria-pressed={isPicking}
      onClick={() => dispatch(startPicking(!isPicking))}
    >
      {isPicking ? 'End selection' : 'Select several places'}
    </button>
  )
}

/** Picks all that is in the open place at once. */
export function PickAll({ items }: { readonly items: readonly TreeItem[] }) {
  const dispatch = useAppDispatch()
  const picked = useAppSelector(state => state.view.picked)
  const isAll = items.every(item => picked.includes(item.id))
  return (
    <input
      type="checkbox"
      className="checkbox checkbox-xs border-base-content/60"
      aria-label="Select all of these"
      checked={isAll}
      onChange={() => {
        for (const { id } of items) dispatch(pick({ id, isPicked: !isAll }))
      }}
    />
  )
}
