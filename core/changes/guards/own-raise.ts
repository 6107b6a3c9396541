import { heldBeforeStates } from '../../access/evaluate.ts'
import { placeOf } from '../../access/place.ts'
import { subjectOf } from '../../access/subject.ts'
import { rowOf } from '../../base/collection.ts'
import type { NodeId, PersonId } from '../../base/ids.ts'
import { type ActionSet, holds, noActions } from '../../levels/action.ts'
import { columnDifferences } from '../../access/column-differences.ts'
import { momentOf } from '../../state/moment.ts'
import type { Moment } from '../../state/state.ts'
import { isJoining } from '../edits/member.ts'
import { instantsOf, reachOf } from '../touched.ts'
import type { Guard, Whole } from './guard.ts'
import { withoutRecovery } from './recovered.ts'

/**
 * Nobody gives themselves more than they had, or for longer, at a place that existed before. Read
 * now and at every later instant at which something begins or ends. Recovering access is the exception.
 */
export const ownRaise: Guard = given => {
  const whole = withoutRecovery(given)
  if (isOwnJoining(whole) || whole.edits.some(edit => edit.kind === 'invitation.accept')) return undefined
  const { places, people } = reachOf(whole)
  if (!people.includes(whole.author)) return undefined
  const existed = places.filter(({ node }) => rowOf(whole.before.state.nodes, node) !== undefined)
  const reach = { places: existed, people: [whole.author] }
  const raised = new Set<NodeId>()
  for (const at of instantsOf(whole, reach)) {
    const before = momentOf(whole.before.state, at)
    const after = momentOf(whole.after.state, at)
    for (const { node } of existed)
      if (!holds(held(before, whole.author, node), held(after, whole.author, node))) raised.add(node)
    for (const each of columnDifferences(reach, before, after)) {
      const isNew = rowOf(before.state.columns, each.column) === undefined
      if (!isNew && rank[each.after] > rank[each.before]) raised.add(each.at)
    }
  }
  return raised.size === 0 ? undefined : { code: 'own-raise', nodes: [...raised] }
}

const rank = { none: 0, see: 1, edit: 2 }

/** Read before archives and the bin take their part: bringing back is no raise. */
function held(moment: Moment, author: PersonId, node: NodeId): ActionSet {
  const subject = subjectOf(moment, author)
  const place = placeOf(moment, node)
  return subject === undefined || place === undefined ? noActions : heldBeforeStates(moment, subject, place)
}

function isOwnJoining({ author, before, after, edits }: Whole): boolean {
  return (
    edits.length > 0 &&
    edits.every(edit => edit.kind === 'member.add' && isJoining({ author, before, now: after }, edit))
  )
}
