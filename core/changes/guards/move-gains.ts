import { check } from '../../access/evaluate.ts'
import { placeOf } from '../../access/place.ts'
import { isPublic } from '../../access/public.ts'
import { peopleOf } from '../../access/subject.ts'
import type { NodeId } from '../../base/ids.ts'
import { has, holds } from '../../levels/action.ts'
import { momentOf } from '../../state/moment.ts'
import { type Moment, type RecordChange, subtreeOf } from '../../state/state.ts'
import { authorActionsInArchive } from '../context.ts'
import { instantsOf } from '../touched.ts'
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
  const nodes = [...subtreeOf(whole.after.state, node)].map(each => each.id)
  const people = [...peopleOf(whole.after)].map(person => person.id)
  return instantsOf(whole, { nodes, people }).some(at => {
    const before = momentOf(whole.before.state, at)
    const after = momentOf(whole.after.state, at)
    return nodes.some(each => people.some(id => !holds(check(before, id, each), check(after, id, each))))
  })
}

function webGains({ before, after }: Whole, node: NodeId): boolean {
  const isSeen = (moment: Moment, id: NodeId) => {
    const place = placeOf(moment, id)
    return place !== undefined && isPublic(moment, place)
  }
  return [...subtreeOf(after.state, node)].some(({ id }) => isSeen(after, id) && !isSeen(before, id))
}
