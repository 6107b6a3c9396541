import { type RefObject, useEffect, useState } from 'react'
import type { Shown } from '../board-context.ts'

/** Which columns are in sight, besides the first, which always is; of a row only these are drawn. */
export interface ShownRange {
  readonly from: number
  /** Behind the last one. */
  readonly until: number
  /** How wide those are that are left out before them. */
  readonly before: number
}

/** So far beyond the edge columns are drawn, in CSS pixels: they are there before they come into sight. */
const beyond = 150

export function useShownRange(scroll: RefObject<HTMLElement | null>, shown: readonly Shown[]): ShownRange {
  const [range, setRange] = useState<ShownRange>(() => rangeIn(shown, 0, beyond * 4))
  useEffect(() => {
    const grid = scroll.current
    if (grid === null) return
    const look = () => {
      const next = rangeIn(shown, grid.scrollLeft, grid.clientWidth)
      setRange(before =>
        before.from === next.from && before.until === next.until && before.before === next.before
          ? before
          : next,
      )
    }
    look()
    const watching = new ResizeObserver(look)
    watching.observe(grid)
    grid.addEventListener('scroll', look, { passive: true })
    return () => {
      watching.disconnect()
      grid.removeEventListener('scroll', look)
    }
  }, [scroll, shown])
  return range
}

/** The first column lies over what is scrolled under it. */
export function rangeIn(shown: readonly Pick<Shown, 'width'>[], left: number, width: number): ShownRange {
  let [from, until, before, at] = [1, shown.length, 0, shown[0]?.width ?? 0]
  for (let nth = 1; nth < shown.length; nth += 1) {
    const end = at + (shown[nth]?.width ?? 0)
    if (end < left - beyond) {
      from = nth + 1
      before += end - at
    }
    if (at > left + width + beyond) {
      until = nth
      break
    }
    at = end
  }
  return { from, until: Math.max(from, until), before }
}
