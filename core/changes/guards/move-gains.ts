import { check } from '../../access/evaluate.ts'
import { peopleOf } from '../../access/subject.ts'
import { rowOf } from '../../base/collection.ts'
import { has, holds } from '../../levels/action.ts'
import { momentOf } from '../../state/moment.ts'
import { subtreeOf } from '../../state/state.ts'
import { authorActionsInArchive } from '../context.ts'
import type { Guard, Whole } from './guard.ts'
import { instantsOf } from './instants.ts'

/** A move by which anybody gains is giving: it needs share at what is moved. */
export const moveGains: Guard = whole => {
  const { before, after, author } = whole
  for (const edit of whole.edits) {
    if (edit.kind !== 'node.move' || rowOf(before.state.nodes, edit.node) === undefined) continue
    const mayShare = has(authorActionsInArchive({ author, before, now: after }, edit.node), 'share')
    if (!mayShare && somebodyGains(whole, edit.node))
      return { code: 'action-missing', action: 'share', node: edit.node }
  }
  return undefined
}

function somebodyGains(whole: Whole, node: Parameters<typeof subtreeOf>[1]): boolean {
  const nodes = [...subtreeOf(whole.after.state, node)].map(each => each.id)
  const people = [...peopleOf(whole.after)].map(person => person.id)
  return instantsOf(whole).some(at => {
    const before = momentOf(whole.before.state, at)
    const after = momentOf(whole.after.state, at)
    return nodes.some(each => people.some(id => !holds(check(before, id, each), check(after, id, each))))
  })
}
