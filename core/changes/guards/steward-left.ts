import { subjectOf } from '../../access/subject.ts'
import { placeOf } from '../../access/place.ts'
import { hasSteward } from '../../access/who.ts'
import { rowOf } from '../../base/collection.ts'
import type { NodeId } from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'
import { momentOf } from '../../state/moment.ts'
import { applyChanges, inverseOf, type Moment, rootOf } from '../../state/state.ts'
import { type Guard, touchedNodes, type Whole } from './guard.ts'
import { afterAllEnds } from './instants.ts'

/**
 * A node that had an active person with share, or is new or brought back, has one afterwards: judged now, and again
 * with all ends passed, each against the state before at the same time; what is new or comes out of the bin, against its
 * parent.
 */
export const stewardLeft: Guard = given => {
  const whole = withoutLeaving(given)
  const nodes = touchedNodes(whole)
  for (const when of ['now', 'after ends'] as const) {
    const at = when === 'now' ? whole.after.at : afterAllEnds
    const left = nodes.filter(node => losesSteward(whole, node, at))
    if (left.length > 0) return { code: 'no-steward-left', nodes: left, when }
  }
  return undefined
}

function losesSteward(whole: Whole, node: NodeId, at: Instant): boolean {
  const after = momentOf(whole.after.state, at)
  const root = rootOf(after.state).id
  if (node === root || isKept(after, node)) return false
  const before = momentOf(whole.before.state, at)
  const was = placeOf(before, node)
  if (was !== undefined && was.binnedAt === undefined) return isKept(before, node)
  const parent = rowOf(after.state.nodes, node)?.parent ?? root
  return parent === root || isKept(before, parent)
}

/** Suspending somebody or ending their time is never refused for what they alone steward: it is judged as if they stayed. */
function withoutLeaving(whole: Whole): Whole {
  const suspensions = whole.changes.filter(
    change =>
      change.table === 'persons' &&
      change.before?.status === 'active' &&
      (change.after?.status === 'suspended' || change.after?.until !== change.before.until),
  )
  if (suspensions.length === 0) return whole
  return {
    ...whole,
    after: momentOf(applyChanges(whole.after.state, inverseOf(suspensions)), whole.after.at),
  }
}

/** Somebody shares there, or nobody has to: in the bin, and in what is private to somebody not active. */
const isKept = (moment: Moment, node: NodeId): boolean => {
  const place = placeOf(moment, node)
  if (place === undefined || place.binnedAt !== undefined || hasSteward(moment, place)) return true
  const home = place.path.find(each => each.home?.of === 'person')?.home
  return home?.of === 'person' && subjectOf(moment, home.person)?.isActive !== true
}
