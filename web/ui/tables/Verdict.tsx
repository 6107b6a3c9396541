/** What became of a row. */
export type Outcome = 'done' | 'as it is' | 'wrong' | 'stopped' | { readonly refused: string }

export const outcomeWords = (outcome: Outcome): string =>
  typeof outcome === 'object' ? `refused: ${outcome.refused}` : outcome

interface Props {
  readonly judged:
    | { readonly verdict: 'new' | 'changes' | 'as it is' | 'wrong'; readonly says: readonly string[] }
    | undefined
  readonly outcome: Outcome | undefined
}

const tones = { new: '', changes: '', 'as it is': 'quiet', wrong: 'text-error' } as const

/** What would become of a row, or what did. */
export function Verdict({ judged, outcome }: Props) {
  if (typeof outcome === 'object')
    return <span className="line-clamp-2 text-error">Refused: {outcome.refused}</span>
  if (outcome === 'done') return <span>Done.</span>
  if (judged === undefined) return <span className="quiet">…</span>
  const words = judged.says.join(' ')
  return (
    <span className={`line-clamp-2 text-sm ${tones[judged.verdict]}`} title={words}>
      {words === '' ? 'No change.' : words}
    </span>
  )
}
