import { check } from '../../access/evaluate.ts'
import { rowOf } from '../../base/collection.ts'
import type { NodeId } from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'
import { holds } from '../../levels/action.ts'
import { momentOf, spansOf } from '../../state/moment.ts'
import { isJoining } from '../edits/member.ts'
import { type Guard, touchedNodes, type Whole } from './guard.ts'

/**
 * Nobody gives themselves more than they had, or for longer, at a place that existed before. Read
 * now and at every later instant at which something begins or ends.
 */
export const ownRaise: Guard = whole => {
  if (isOwnJoining(whole) || whole.edits.some(edit => edit.kind === 'invitation.accept')) return undefined
  const existed = touchedNodes(whole).filter(node => rowOf(whole.before.state.nodes, node) !== undefined)
  const raised = new Set<NodeId>()
  for (const at of instantsOf(whole)) {
    const before = momentOf(whole.before.state, at)
    const after = momentOf(whole.after.state, at)
    for (const node of existed)
      if (!holds(check(before, whole.author, node), check(after, whole.author, node))) raised.add(node)
  }
  return raised.size === 0 ? undefined : { code: 'own-raise', nodes: [...raised] }
}

function isOwnJoining({ author, before, after, edits }: Whole): boolean {
  return (
    edits.length > 0 &&
    edits.every(edit => edit.kind === 'member.add' && isJoining({ author, before, now: after }, edit))
  )
}

/** Now and every later start and end in either state: in between, nothing changes by itself. */
function instantsOf({ before, after }: Whole): Instant[] {
  const bounds = [...spansOf(before.state), ...spansOf(after.state)].flatMap(span => [span.from, span.until])
  const later = bounds.filter(bound => bound !== null && bound > after.at) as Instant[]
  return [...new Set([after.at, ...later])].sort((a, b) => a - b)
}
