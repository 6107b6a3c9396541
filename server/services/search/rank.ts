import { foldedWords } from '#core/base/fold-words.ts'
import type { Instant } from '#core/base/instant.ts'
import type { FoundDocument } from '../../store/search/index-port.ts'

interface Ranking {
  readonly words: readonly string[]
  readonly now: Instant
}

/** What is called so comes before what only says so; of what is alike, what was changed lately. */
const worth = { sameName: 1000, nameBegins: 600, inName: 400, anywhere: 0 } as const
const worthOfToday = 100
/** After so long a change is worth a third of what it was. */
const fades = 90 * 86_400_000
/** What is in others counts less than what they are in. */
const worthOfKind: Readonly<Record<string, number>> = { folder: 20, board: 20, page: 15, file: 10 }

/** Each place once, the best first. Nothing counts but what the asker sees: how often a word stands elsewhere is not asked. */
export function ranked(documents: readonly FoundDocument[], { words, now }: Ranking): FoundDocument[] {
  const best = new Map<string, { readonly document: FoundDocument; readonly score: number }>()
  for (const document of documents) {
    const score = scoreOf(document, words, now)
    const before = best.get(document.node)
    if (before === undefined || score > before.score) best.set(document.node, { document, score })
  }
  return [...best.values()]
    .toSorted((a, b) => b.score - a.score || b.document.number - a.document.number)
    .map(each => each.document)
}

function scoreOf(document: FoundDocument, words: readonly string[], now: Instant): number {
  const age = Math.max(0, now - document.changedAt)
  const recency = worthOfToday * Math.exp(-age / fades)
  return worth[wayOf(document, words)] + recency + (worthOfKind[document.kind] ?? 0)
}

function wayOf({ part, name }: FoundDocument, words: readonly string[]): keyof typeof worth {
  if (part !== 'place' || words.length === 0) return 'anywhere'
  const named = foldedWords(name)
  if (named.join(' ') === words.join(' ')) return 'sameName'
  if (named.join(' ').startsWith(words.join(' '))) return 'nameBegins'
  return words.every(word => named.some(each => each.startsWith(word))) ? 'inName' : 'anywhere'
}
