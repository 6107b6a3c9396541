import type { KeyboardEvent, PointerEvent } from 'react'
import type { TreeItem } from '#contract/views/content.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { placesWords } from '#core/words/english.ts'
import { say } from '../../store/message.ts'
import { type AppDispatch, store, useAppDispatch, useAppSelector } from '../../store/store.ts'
import { cut, dragOver, moveTo } from '../../store/view.ts'
import { beginDrag, under } from '../../ui/drag.ts'

/** Places are moved by dragging them onto another one, or by cutting them out and putting them in by keys. */

type Movable = Pick<TreeItem, 'id' | 'name' | 'kind' | 'actions' | 'home'>

export const mayMove = ({ actions, home }: Movable): boolean =>
  home === null && has(actions as ActionSet, 'remove')

/** What goes along: all that are picked, where this is one of them. */
function goingWith({ id }: Movable): readonly string[] {
  const { picked } = store.getState().view
  return picked.includes(id) ? picked : [id]
}

interface Dragged {
  readonly isTarget: boolean
  readonly isCut: boolean
  /** Of the element that stands for the place. */
  readonly handlers: {
    readonly 'data-place': string
    readonly onPointerDown: (event: PointerEvent) => void
  }
}

export function usePlaceDrag(item: Movable): Dragged {
  const dispatch = useAppDispatch()
  const isTarget = useAppSelector(state => state.view.under === item.id)
  const isCut = useAppSelector(state => state.view.cut.includes(item.id))
  const onPointerDown = (event: PointerEvent) => {
    if (!mayMove(item)) return
    const places = goingWith(item)
    const over = (x: number, y: number) => {
      const place = under(x, y, 'data-place')
      return place === undefined || places.includes(place) ? undefined : place
    }
    beginDrag(event, {
      label: places.length === 1 ? item.name : placesWords(places.length),
      scroll: event.currentTarget.closest<HTMLElement>('nav, main'),
      onMove: (x, y) => dispatch(dragOver(over(x, y) ?? null)),
      onDrop: (x, y) => {
        const to = over(x, y)
        if (to !== undefined) dispatch(moveTo({ places, to }))
      },
      onEnd: () => dispatch(dragOver(null)),
    })
  }
  return { isTarget, isCut, handlers: { 'data-place': item.id, onPointerDown } }
}

/** Ctrl+X cuts a place out, or all that are picked; Ctrl+V puts what is cut into the place that is meant. Whether it was one. */
export function onMovingKey(dispatch: AppDispatch, event: KeyboardEvent, item: Movable): boolean {
  const { key, ctrlKey, metaKey, shiftKey, altKey } = event
  const places = store.getState().view.cut
  if (key === 'Escape' && places.length > 0) {
    dispatch(cut([]))
    return true
  }
  if ((!ctrlKey && !metaKey) || shiftKey || altKey) return false
  if (key.toLowerCase() === 'x' && mayMove(item)) {
    const going = goingWith(item)
    dispatch(cut(going))
    const what = going.length === 1 ? item.name : placesWords(going.length)
    dispatch(say({ text: `${what} can be moved: go to another place and press Ctrl+V.` }))
    return true
  }
  if (key.toLowerCase() !== 'v' || places.length === 0) return false
  dispatch(moveTo({ places, to: item.id }))
  return true
}
