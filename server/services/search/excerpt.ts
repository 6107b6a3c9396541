import type { MarkedText } from '#contract/views/search.ts'
import { fold, placesOf } from '#core/base/fold-words.ts'

/** So much of a text is looked through for an excerpt, window by window, and so much of it is shown. */
const lookedThrough = 200_000
const windowLength = 2000
const shown = 220
/** So much stands before the first word that was looked for. */
const before = 60

/** The part of a text in which most of what is looked for stands; nothing where none of it does. */
export function excerptOf(body: string, words: readonly string[]): MarkedText | null {
  if (words.length === 0) return null
  let best = { count: 0, from: 0 }
  for (let from = 0; from < Math.min(body.length, lookedThrough); from += windowLength) {
    // Windows overlap: a word is not cut.
    const folded = fold(body.slice(from, from + windowLength + shown))
    const count = words.filter(word => folded.includes(word)).length
    if (count > best.count) best = { count, from }
    if (count === words.length) break
  }
  const [first] = placesOf(body.slice(best.from, best.from + windowLength + shown), words)
  if (first === undefined) return null
  const start = startOf(body, best.from + first[0])
  const end = endOf(body, start)
  const text = `${start > 0 ? '… ' : ''}${body.slice(start, end).replaceAll(/\s+/g, ' ').trim()}${end < body.length ? ' …' : ''}`
  return { text, marks: placesOf(text, words) }
}

/** At the beginning of a word, not far before a sign. */
function startOf(body: string, at: number): number {
  const earliest = Math.max(0, at - before)
  if (earliest === 0) return 0
  const space = body.slice(earliest, at).search(/\s/)
  return space === -1 ? at : earliest + space + 1
}

function endOf(body: string, start: number): number {
  const latest = start + shown
  if (latest >= body.length) return body.length
  const space = body.lastIndexOf(' ', latest)
  return space > start ? space : latest
}
