import type { PointerEvent as ReactPointerEvent } from 'react'

export interface Drag {
  /** Where the pointer is, in the window. */
  readonly onMove: (x: number, y: number) => void
  readonly onDrop: (x: number, y: number) => void
  /** It is over, whether it was let go of somewhere or left. */
  readonly onEnd: () => void
  /** What goes with the pointer, in words. */
  readonly label?: string
  /** What scrolls when the pointer comes near its edge. */
  readonly scroll?: HTMLElement | null
}

/** So far a pointer goes before it drags: until then it is a click. */
const farEnough = 5
const nearEdge = 36
/** In pixels a frame, at the edge itself. */
const scrollStep = 14

/** Drags something by the pointer that just went down on it. Escape leaves it where it was. */
export function beginDrag(begun: ReactPointerEvent, { onMove, onDrop, onEnd, scroll, label }: Drag): void {
  if (begun.button !== 0) return
  const listening = new AbortController()
  const { signal } = listening
  const at = { x: begun.clientX, y: begun.clientY }
  const sign = label === undefined ? undefined : signWith(label)
  let isDragging = false
  let frame = 0
  const end = () => {
    listening.abort()
    cancelAnimationFrame(frame)
    if (!isDragging) return
    document.documentElement.classList.remove('dragging')
    sign?.remove()
    onEnd()
  }
  const followEdge = () => {
    if (scroll != null && scrollBy(scroll, at)) onMove(at.x, at.y)
    frame = requestAnimationFrame(followEdge)
  }
  const begin = () => {
    isDragging = true
    document.documentElement.classList.add('dragging')
    if (sign !== undefined) document.body.append(sign)
    frame = requestAnimationFrame(followEdge)
  }
  const move = (event: PointerEvent) => {
    const isFar = Math.hypot(event.clientX - begun.clientX, event.clientY - begun.clientY) >= farEnough
    at.x = event.clientX
    at.y = event.clientY
    if (!isDragging && isFar) begin()
    if (!isDragging) return
    sign?.style.setProperty('transform', `translate(${at.x + 14}px, ${at.y + 10}px)`)
    onMove(at.x, at.y)
  }
  const up = (event: PointerEvent) => {
    if (isDragging) {
      swallowClick()
      onDrop(event.clientX, event.clientY)
    }
    end()
  }
  const key = (event: KeyboardEvent) => {
    if (event.key !== 'Escape') return
    event.stopPropagation()
    end()
  }
  window.addEventListener('pointermove', move, { signal })
  window.addEventListener('pointerup', up, { signal })
  window.addEventListener('pointercancel', end, { signal })
  window.addEventListener('keydown', key, { signal, capture: true })
  // Neither text nor pictures go with it.
  window.addEventListener('dragstart', event => event.preventDefault(), { signal })
  window.addEventListener('selectstart', event => event.preventDefault(), { signal })
}

function signWith(label: string): HTMLElement {
  const sign = document.createElement('div')
  sign.className = 'drag-sign'
  sign.textContent = label
  sign.ariaHidden = 'true'
  return sign
}

/** Letting go over what one began on is no click on it. */
function swallowClick(): void {
  const swallow = (event: MouseEvent) => {
    event.stopPropagation()
    event.preventDefault()
  }
  window.addEventListener('click', swallow, { capture: true, once: true })
  // Where no click comes none is waited for.
  setTimeout(() => window.removeEventListener('click', swallow, { capture: true }), 0)
}

/** Whether it scrolled. */
function scrollBy(scroll: HTMLElement, { x, y }: { readonly x: number; readonly y: number }): boolean {
  const { top, bottom, left, right } = scroll.getBoundingClientRect()
  const [down, across] = [stepAt(y, top, bottom), stepAt(x, left, right)]
  const before = [scroll.scrollTop, scroll.scrollLeft]
  scroll.scrollBy(across, down)
  return scroll.scrollTop !== before[0] || scroll.scrollLeft !== before[1]
}

const stepAt = (at: number, low: number, high: number): number => {
  if (at < low + nearEdge) return -scrollStep * Math.min(1, (low + nearEdge - at) / nearEdge)
  return at > high - nearEdge ? scrollStep * Math.min(1, (at - high + nearEdge) / nearEdge) : 0
}

/** What an attribute says of whatever has it and lies under the pointer. */
export const under = (x: number, y: number, attribute: string): string | undefined =>
  document
    .elementsFromPoint(x, y)
    // The row of a table is not met by itself, only its cells are.
    .map(each => each.closest(`[${attribute}]`)?.getAttribute(attribute) ?? undefined)
    .find(each => each !== undefined)
