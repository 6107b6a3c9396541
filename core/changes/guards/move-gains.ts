import { check } from '../../access/evaluate.ts'
import { isPublicIn } from '../../access/public.ts'
import { startsAt } from '../../access/side-by-side.ts'
import { nodeById, sightOf } from '../../access/sight.ts'
import { peopleOf } from '../../access/subject.ts'
import { who } from '../../access/who.ts'
import { none } from '../../base/column.ts'
import type { NodeId } from '../../base/ids.ts'
import { has, holds } from '../../levels/action.ts'
import { momentOf } from '../../state/moment.ts'
import type { Moment, RecordChange } from '../../state/state.ts'
import { authorActionsInArchive } from '../context.ts'
import { placesBelow } from '../places.ts'
import { instantsOf } from '../instants.ts'
import type { Guard, Whole } from './guard.ts'

/**
 * A move by which anybody gains is giving: it needs share at what is moved; and publish, if the
 * web does. A home moves only where it is handed over, which has rights of its own.
 */
export const moveGains: Guard = whole => {
  const { before, after, author } = whole
  for (const { id } of whole.changes.filter(isMove)) {
    const mayShare = has(authorActionsInArchive({ author, before, now: after }, id as NodeId), 'share')
    if (!mayShare && somebodyGains(whole, id as NodeId))
      return { code: 'action-missing', action: 'share', node: id as NodeId }
    const mayPublish = has(authorActionsInArchive({ author, before, now: after }, id as NodeId), 'publish')
    if (!mayPublish && webGains(whole, id as NodeId))
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

function somebodyGains(whole: Whole, node: NodeId): boolean {
  const { before, after } = whole
  const places = placesBelow(before.state, after.state, new Set([node]))
  const starts = startsAt([before.state.index, after.state.index], [node])
  const people = [...peopleOf(after)].map(person => person.id)
  return instantsOf(whole, { starts, people }).some(at => {
    const was = momentOf(before.state, at)
    const will = momentOf(after.state, at)
    return places.some(place =>
      who(will, place.node).some(
        ({ person, actions, isActive }) => isActive && !holds(check(was, person.id, place.node), actions),
      ),
    )
  })
}

function webGains({ before, after }: Whole, node: NodeId): boolean {
  const isSeen = (moment: Moment, id: NodeId) => {
    const sight = sightOf(moment)
    const place = nodeById(sight, id)
    return place !== none && isPublicIn(sight, place)
  }
  return placesBelow(before.state, after.state, new Set([node])).some(
    place => isSeen(after, place.node) && !isSeen(before, place.node),
  )
}
