import { useState } from 'react'

/** What was typed and not sent: it survives leaving the page and loading it anew, in this tab. */
export function useDraft<Draft extends object>(
  key: string,
  empty: Draft,
): readonly [Draft, (draft: Draft) => void, () => void] {
  const [draft, setDraft] = useState<Draft>(() => {
    try {
      return { ...empty, ...(JSON.parse(sessionStorage.getItem(key) ?? '{}') as Partial<Draft>) }
    } catch {
      return empty
    }
  })
  const keep = (next: Draft) => {
    setDraft(next)
    sessionStorage.setItem(key, JSON.stringify(next))
  }
  const drop = () => {
    setDraft(empty)
    sessionStorage.removeItem(key)
  }
  return [draft, keep, drop]
}
