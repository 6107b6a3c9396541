import type { DiffQuery } from '../../access/access-diff.ts'
import { isPublicIn } from '../../access/public.ts'
import { startsAt } from '../../access/side-by-side.ts'
import { isActiveIn, nodeById, evaluationOf } from '../../access/evaluation-context.ts'
import { peopleOf } from '../../access/subject.ts'
import { none } from '../../base/vector.ts'
import type { NodeId } from '../../base/ids.ts'
import { has } from '../../levels/action.ts'
import { snapshotOf } from '../../state/snapshot.ts'
import type { Snapshot, RecordChange } from '../../state/state.ts'
import { authorActionsInArchive } from '../context.ts'
import { placesBelow } from '../places.ts'
import { instantsOf } from '../instants.ts'
import { answered, type Steps } from '../steps.ts'
import type { LongGuard, ProposedChanges } from './guard.ts'

/**
 * A move by which anybody gains is giving: it needs share at what is moved; and publish, if the
 * web does. A home moves only where it is handed over, which has rights of its own.
 */
export const moveGains: LongGuard = function* (proposed) {
  const { before, after, author } = proposed
  for (const { id } of proposed.changes.filter(isMove)) {
    const mayShare = has(authorActionsInArchive({ author, before, now: after }, id as NodeId), 'share')
    if (!mayShare && (yield* someGain(proposed, id as NodeId)))
      return { code: 'action-missing', action: 'share', node: id as NodeId }
    const mayPublish = has(authorActionsInArchive({ author, before, now: after }, id as NodeId), 'publish')
    if (!mayPublish && webGains(proposed, id as NodeId))
      return { code: 'action-missing', action: 'publish', node: id as NodeId }
  }
  return undefined
}

const isMove = ({ table, before, after }: RecordChange) =>
  table === 'nodes' &&
  before !== null &&
  after !== null &&
  before.parent !== after.parent &&
  before.home === null

function* someGain(proposed: ProposedChanges, node: NodeId): Steps<boolean> {
  const { before, after } = proposed
  const starts = startsAt([before.state.index, after.state.index], [node])
  const people = [...peopleOf(after)].map(person => person.id)
  for (const at of instantsOf(proposed, { starts, people })) {
    const both = { before: snapshotOf(before.state, at), after: snapshotOf(after.state, at) }
    const { sum } = yield* answered(gainAt(both, node))
    if (sum.gains.people > 0) return true
  }
  return false
}

/** Of those who are active then; who is still to come gains once they come. */
function gainAt(both: Pick<ProposedChanges, 'before' | 'after'>, node: NodeId): DiffQuery {
  const sides = [evaluationOf(both.before), evaluationOf(both.after)] as const
  const people: number[] = []
  for (let person = 0; person < sides[1].index.persons.length; person += 1)
    if (isActiveIn(sides[1], person)) people.push(person)
  const indexes = [sides[0].index, sides[1].index] as const
  const starts = startsAt(indexes, [node])
  return { sides, starts, people: Int32Array.from(people), isWeb: false, asker: none, mostRows: 0 }
}

function webGains({ before, after }: ProposedChanges, node: NodeId): boolean {
  const isVisible = (snapshot: Snapshot, id: NodeId) => {
    const evaluation = evaluationOf(snapshot)
    const place = nodeById(evaluation, id)
    return place !== none && isPublicIn(evaluation, place)
  }
  return placesBelow(before.state, after.state, new Set([node])).some(
    place => isVisible(after, place.node) && !isVisible(before, place.node),
  )
}
