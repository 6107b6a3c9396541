import { useCallback, useLayoutEffect, useRef } from 'react'

/**
 * A function that is the same each time and does what the newest one does: whoever is handed it need not be drawn anew
 * for it. Not to be called while something is drawn.
 */
export function useSteady<Given extends readonly unknown[], Answer>(
  newest: (...given: Given) => Answer,
): (...given: Given) => Answer {
  const latest = useRef(newest)
  useLayoutEffect(() => {
    latest.current = newest
  })
  return useCallback((...given: Given) => latest.current(...given), [])
}
