import type { ReactNode } from 'react'
import type { MarkedText } from '#contract/views/search.ts'

/** A text with what was looked for in it. */
export function MarkedWords({ of: { text, marks } }: { readonly of: MarkedText }) {
  const parts: ReactNode[] = []
  let at = 0
  for (const [from = 0, behind = 0] of marks) {
    parts.push(text.slice(at, from))
    parts.push(
      <mark
        key={from}
        className="bg-transparent font-bold text-inherit underline decoration-primary decoration-2 underline-offset-2"
      >
        {text.slice(from, behind)}
      </mark>,
    )
    at = behind
  }
  return (
    <>
      {parts}
      {text.slice(at)}
    </>
  )
}
