import { useMemo, useState } from 'react'

/**
 * Keeps the focus with a row that keys move to where it is drawn anew: the element that is gone takes its focus with
 * it. `of` gives what the element at which the row is drawn takes.
 */
export function useFollowed() {
  const [followed, follow] = useState<string>()
  return useMemo(
    () => ({
      follow,
      of: (row: string) => ({
        autoFocus: row === followed,
        // Whoever goes on elsewhere is not called back.
        onBlur: () => follow(undefined),
      }),
    }),
    [followed],
  )
}

export type Followed = ReturnType<typeof useFollowed>
