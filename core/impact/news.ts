import type { Transition } from '../changes/affected-scope.ts'
import type { ImpactAt } from './impact.ts'
import { boundsIn } from './bounds.ts'

/**
 * The instants at which a change set makes a difference of its own: now, where something that it changes begins or
 * ends, and where somebody gains or loses what they did not before. That somebody goes whom it concerned makes the list
 * of the concerned shorter, and is no news of the change.
 */
export function newsOf(transition: Transition, impacts: readonly ImpactAt[]): ImpactAt[] {
  const own = new Set(boundsIn(transition))
  return impacts.filter((each, index) => {
    const before = impacts[index - 1]
    return before === undefined || own.has(each.at) || hasNews(each, before)
  })
}

const hasNews = (now: ImpactAt, before: ImpactAt): boolean =>
  now.hiddenPlaces > before.hiddenPlaces ||
  isBeyond(now.differences, before.differences) ||
  isBeyond(now.columns, before.columns) ||
  isBeyond(now.powers, before.powers)

function isBeyond(now: readonly object[], before: readonly object[]): boolean {
  const known = new Set(before.map(each => JSON.stringify(each)))
  return now.some(each => !known.has(JSON.stringify(each)))
}
