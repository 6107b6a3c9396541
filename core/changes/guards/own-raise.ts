import { createClasses, type Sides } from '../../access/classes.ts'
import { columnDifferences } from '../../access/column-differences.ts'
import { capped } from '../../access/evaluate.ts'
import { type Below, onlyClass, regionsOf, startsAt, walkBelow } from '../../access/side-by-side.ts'
import { isActiveIn, personById, type Sight, sightOf } from '../../access/sight.ts'
import { rowOf } from '../../base/collection.ts'
import { none } from '../../base/column.ts'
import type { NodeId, PersonId } from '../../base/ids.ts'
import { idOf } from '../../base/numbering.ts'
import { holds, noActions } from '../../levels/action.ts'
import { momentOf } from '../../state/moment.ts'
import type { Moment } from '../../state/state.ts'
import { isJoining } from '../edits/member.ts'
import { instantsOf } from '../instants.ts'
import { isTouched, topsTouched } from '../touched.ts'
import type { Guard, Whole } from './guard.ts'
import { withoutRecovery } from './recovered.ts'

/**
 * Nobody gives themselves more than they had, or for longer, at a place that existed before. Read
 * now and at every later instant at which something begins or ends. Recovering access is the exception.
 */
export const ownRaise: Guard = given => {
  const whole = withoutRecovery(given)
  if (isOwnJoining(whole) || whole.edits.some(edit => edit.kind === 'invitation.accept')) return undefined
  if (!isTouched(whole, whole.author)) return undefined
  const indexes = [whole.before.state.index, whole.after.state.index] as const
  const people = [whole.author]
  const tops = topsTouched(whole)
  const starts = startsAt(indexes, tops)
  const regions = regionsOf(indexes, starts)
  const raised = new Set<NodeId>()
  for (const at of instantsOf(whole, { starts, people })) {
    const before = momentOf(whole.before.state, at)
    const after = momentOf(whole.after.state, at)
    for (const node of raisedIn([before, after], whole.author, regions)) raised.add(node)
    for (const each of columnDifferences({ tops, people }, before, after)) {
      const isNew = rowOf(before.state.columns, each.column) === undefined
      if (!isNew && rank[each.after] > rank[each.before]) raised.add(each.at)
    }
  }
  return raised.size === 0 ? undefined : { code: 'own-raise', nodes: [...raised] }
}

const rank = { none: 0, see: 1, edit: 2 }

/** Read before archives and the bin take their part: bringing back is no raise. */
function raisedIn(moments: Sides<Moment>, author: PersonId, regions: readonly Below[]): NodeId[] {
  const sides = [sightOf(moments[0]), sightOf(moments[1])] as const
  const people = sides.map(sight => personById(sight, author))
  const person = people.find(each => each !== none)
  if (person === undefined) return []
  const classes = createClasses(sides, [person])
  const isHere = people.map((each, side) => each !== none && isActiveIn(sides[side] as Sight, each))
  const raised: NodeId[] = []
  for (const below of regions)
    walkBelow(classes, below, ({ top, was, is }) => {
      if (was === none || is === none) return
      const { sums } = onlyClass(classes)
      // Nothing that has a name is made here: there can be very many pieces, and naming it takes longer than all else.
      const held = isHere[0] === true ? capped(sides[0].index, sums[0]) : noActions
      const then = isHere[1] === true ? capped(sides[1].index, sums[1]) : noActions
      if (!holds(held, then)) raised.push(idOf(sides[1].index.nodes, top) as NodeId)
    })
  return raised
}

function isOwnJoining({ author, before, after, edits }: Whole): boolean {
  return (
    edits.length > 0 &&
    edits.every(edit => edit.kind === 'member.add' && isJoining({ author, before, now: after }, edit))
  )
}
