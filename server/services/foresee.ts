import { isDeepStrictEqual } from 'node:util'
import type { ChangeSetRequest } from '#contract/requests.ts'
import type { DifferenceView, ForeseenAt, ForeseenView } from '#contract/views.ts'
import { check } from '#core/access/evaluate.ts'
import { rowOf } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import { judge, wholeOf } from '#core/changes/judge.ts'
import { type Difference, impact, type ImpactAt } from '#core/impact/impact.ts'
import { has } from '#core/levels/action.ts'
import { momentOf } from '#core/state/moment.ts'
import { type Moment, pathOf, rootOf } from '#core/state/state.ts'
import type { Parts } from '../parts.ts'
import { ProblemError } from '../problem-error.ts'
import { type Asker, nameOf } from './asker.ts'
import { changeSetFrom, problemFrom } from './change.ts'

/** Judges a change set without applying it, and tells its author what it would do. */
export function foresee(parts: Parts, asker: Asker, request: ChangeSetRequest): ForeseenView {
  const { changeSet } = changeSetFrom(parts, asker, request)
  const before = momentOf(asker.moment.state, parts.clock())
  const judged = judge(before, changeSet)
  if (!judged.ok) throw new ProblemError(problemFrom(judged.error, asker))
  const after = momentOf(judged.value.state, before.at)
  const foreseen = impact(wholeOf(before, changeSet, judged.value))
  return {
    revision: before.state.revision,
    impact: withoutRepeats(foreseen.map(each => foreseenAt(asker, after, each))),
  }
}

/**
 * A difference is told where the author shares, before or after, or where it is the author's own. Where
 * the author shares above a place that is hidden, the place is counted and not named.
 */
function foreseenAt(asker: Asker, after: Moment, { at, differences }: ImpactAt): ForeseenAt {
  const known = differences.filter(each => maySeeDifference(asker, after, each))
  const hidden = new Set(
    differences
      .filter(each => !sees(asker, after, each.node) && sharesAbove(asker, each.node))
      .map(each => each.node),
  )
  return { at, differences: known.map(each => differenceView(after, asker, each)), hiddenPlaces: hidden.size }
}

/** An instant at which only what is hidden changes is passed over: it would tell that something ends there. */
const withoutRepeats = (told: readonly ForeseenAt[]): ForeseenAt[] =>
  told.filter((each, index) => index === 0 || !isDeepStrictEqual({ ...told[index - 1], at: each.at }, each))

function maySeeDifference(asker: Asker, after: Moment, { person, node }: Difference): boolean {
  if (node === rootOf(asker.moment.state).id || !sees(asker, after, node)) return false
  return (
    person === asker.person ||
    [asker.moment, after].some(each => has(check(each, asker.person, node), 'share'))
  )
}

const sees = (asker: Asker, after: Moment, node: NodeId): boolean =>
  [asker.moment, after].some(each => has(check(each, asker.person, node), 'see'))

const sharesAbove = (asker: Asker, node: NodeId): boolean =>
  pathOf(asker.moment.state, node).some(each => has(check(asker.moment, asker.person, each.id), 'share'))

const differenceView = (
  after: Moment,
  asker: Asker,
  { person, node, ...sets }: Difference,
): DifferenceView => ({
  person: {
    id: person,
    name: nameOf(rowOf(after.state.persons, person) === undefined ? asker.moment : after, person),
  },
  place: {
    id: node,
    name: (rowOf(after.state.nodes, node) ?? rowOf(asker.moment.state.nodes, node))?.name ?? '',
  },
  ...sets,
})
