import { childrenIn } from '#core/access/cut-segments.ts'
import type { Sides } from '#core/access/classes.ts'
import type { EvaluationContext } from '#core/access/evaluation-context.ts'
import { answerAt, answersFor } from '#core/access/what.ts'
import type { Instant } from '#core/base/instant.ts'
import { type ActionSet, has, noActions } from '#core/levels/action.ts'

/**
 * Every place that a person sees, or saw at a past instant, as far as the asker may be told now, of which one page is
 * listed.
 */
export interface Listing {
  readonly person: number
  readonly asker: number
  readonly root: number
  /** Whether the asker may be told of all that they may name, not just of where they share. */
  readonly mayCheck: boolean
  /** Whether the asker may name what they do not see, but for what lies in these. */
  readonly outlinesBut: readonly number[] | null
  /** When it is asked: what the asker may be told is read then. */
  readonly now: Instant
  /** Of a past state the places that are no more: what is there under their number now is another. */
  readonly gone: readonly number[]
  readonly from: number
  readonly count: number
}

export interface ListedPlaces {
  readonly total: number
  /** Parents before what is in them. */
  readonly listed: readonly { readonly node: number; readonly actions: ActionSet }[]
}

const stepLength = 4096

/** Costs a look at every place. Then and now are the same evaluation for what is asked about now. */
export function listPlaces(
  [evaluation, now]: Sides<EvaluationContext>,
  listing: Listing,
  onProgress: (done: number) => void,
): ListedPlaces {
  const { person, root, outlinesBut, from, count } = listing
  const answers = answersFor(evaluation, person)
  const own = answersFor(now, listing.asker)
  const closed = new Set(outlinesBut ?? [])
  const gone = new Set(listing.gone)
  const listed: ListedPlaces['listed'][number][] = []
  let total = 0
  let looked = 0
  const waiting: (readonly [number, boolean])[] = childrenIn(evaluation.index, root).map(node => [node, true])
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    const [node, isAboveOpen] = next
    const isOpen = isAboveOpen && !closed.has(node)
    const actions = answerAt(answers, node)
    if (actions !== noActions && !gone.has(node) && isTold(listing, answerAt(own, node), isOpen)) {
      if (total >= from && listed.length < count) listed.push({ node, actions })
      total += 1
    }
    for (const child of childrenIn(evaluation.index, node)) waiting.push([child, isOpen])
    looked += 1
    if (looked % stepLength === 0) onProgress(looked / evaluation.index.nodes.length)
  }
  return { total, listed }
}

function isTold(
  { person, asker, mayCheck, outlinesBut }: Listing,
  held: ActionSet,
  isOpen: boolean,
): boolean {
  if (person === asker) return has(held, 'see')
  const mayName = has(held, 'see') || (isOpen && outlinesBut !== null)
  return mayName && (mayCheck || has(held, 'share'))
}
