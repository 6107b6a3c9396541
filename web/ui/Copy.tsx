import { useState } from 'react'
import { isCopied } from './is-copied.ts'

/** Puts a text where it can be pasted from; shows it too, since not every browser lets a page do that. */
export function Copy({ text, label }: { readonly text: string; readonly label: string }) {
  const [isDone, setDone] = useState(false)
  return (
    <div className="flex items-center gap-2">
      <input
        className="field font-mono text-sm"
        aria-label={label}
        readOnly
        value={text}
        onFocus={event => event.target.select()}
      />
      <button type="button" className="btn-plain" onClick={() => void isCopied(text).then(setDone)}>
        {isDone ? 'Copied' : 'Copy'}
      </button>
    </div>
  )
}
