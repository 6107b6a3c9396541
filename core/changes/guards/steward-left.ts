import { subjectOf } from '../../access/subject.ts'
import { placeOf } from '../../access/place.ts'
import { belowEach, cutSegmentsAt, startsAt } from '../../access/side-by-side.ts'
import { evaluationOf } from '../../access/evaluation-context.ts'
import { hasSteward, hasStewardIn } from '../../access/who.ts'
import { rowOf } from '../../base/collection.ts'
import type { NodeId, PersonId } from '../../base/ids.ts'
import type { Instant } from '../../base/instant.ts'
import { idOf } from '../../base/numbering.ts'
import { snapshotOf } from '../../state/snapshot.ts'
import { type Snapshot, pathOf, type RecordChange, rootOf } from '../../state/state.ts'
import { afterAllEnds, topsTouched, touchedPlaces, type Touching } from '../touched.ts'
import type { LongGuard, Whole } from './guard.ts'
import { topmostOf } from '../places.ts'
import { without } from './recovered.ts'

/**
 * A node that had an active person with share, or is new or brought back, has one afterwards: judged now, and again
 * with all ends passed, each against the state before at the same time; what is new or comes out of the bin, against its
 * parent.
 */
export const stewardLeft: LongGuard = function* (given) {
  const whole = withoutLeaving(given)
  const indexes = [whole.before.state.index, whole.after.state.index] as const
  // What is only given takes nobody's access.
  const tops = topsTouched({ ...whole, changes: whole.changes.filter(change => !isGift(change)) })
  yield 0
  const places: number[] = []
  for (const [looked, below] of belowEach(indexes, startsAt(indexes, tops)).entries()) {
    if (looked % lookedAtOnce === 0) yield 0
    if (below.side === 1) places.push(...cutSegmentsAt(indexes, below).tops)
  }
  for (const when of ['now', 'after ends'] as const) {
    const at = when === 'now' ? whole.after.at : afterAllEnds
    const evaluation = evaluationOf(snapshotOf(whole.after.state, at))
    const left: NodeId[] = []
    for (const [looked, place] of places.entries()) {
      if (looked % lookedAtOnce === 0) yield looked / places.length
      const node = idOf(evaluation.index.nodes, place) as NodeId
      if (!hasStewardIn(evaluation, place) && losesSteward(whole, node, at)) left.push(node)
    }
    if (left.length > 0) return { code: 'no-steward-left', nodes: topmostOf(whole.after.state, left), when }
  }
  return undefined
}

const lookedAtOnce = 100

const isGift = ({ table, before }: RecordChange): boolean => table === 'grants' && before === null

function losesSteward(whole: Whole, node: NodeId, at: Instant): boolean {
  const after = snapshotOf(whole.after.state, at)
  const root = rootOf(after.state).id
  if (node === root || isKept(after, node)) return false
  const before = snapshotOf(whole.before.state, at)
  const was = placeOf(before, node)
  if (was !== undefined && was.binnedAt === undefined) return isKept(before, node)
  const above = parentThere(whole, after, node) ?? root
  return above === root || isKept(before, above)
}

/** What a place is new in: the nearest place above it that existed. */
const parentThere = ({ before }: Whole, { state }: Snapshot, node: NodeId): NodeId | undefined =>
  pathOf(state, node)
    .slice(1)
    .find(({ id }) => rowOf(before.state.nodes, id) !== undefined)?.id

/**
 * Suspending or removing somebody, or ending their time, is never refused for what they alone steward: it
 * is judged as if they stayed, with all that hung on them.
 */
function withoutLeaving(whole: Whole): Whole {
  const removed = new Set(whole.edits.flatMap(edit => (edit.kind === 'person.remove' ? [edit.person] : [])))
  return without(whole, change => {
    if (change.table === 'persons') return isLeaving(change)
    if (change.after !== null) return false
    if (change.table === 'grants' || change.table === 'limits')
      return (
        change.before !== null && removed.has(change.before.principal.slice('person:'.length) as PersonId)
      )
    const isTheirs = change.table === 'memberships' || change.table === 'holdings'
    return isTheirs && change.before !== null && removed.has(change.before.person)
  })
}

const isLeaving = ({ before, after }: Extract<RecordChange, { table: 'persons' }>): boolean =>
  (before?.status === 'active' && (after?.status === 'suspended' || after?.until !== before.until)) ||
  after?.status === 'removed'

/** The places that had somebody to share there before and have nobody after; not those that follow another of them. */
export function leftAlone(touching: Touching): NodeId[] {
  const { before, after } = touching
  const tops = new Set(touchedPlaces(touching).map(each => each.node))
  const left = new Set(
    [...tops].filter(
      node => isThere(before, node) && isThere(after, node) && isKept(before, node) && !isKept(after, node),
    ),
  )
  return [...left].filter(id => {
    const [node, ...above] = pathOf(after.state, id)
    const within = above.find(each => tops.has(each.id))
    return node?.broken !== null || within === undefined || !left.has(within.id)
  })
}

const isThere = (snapshot: Snapshot, node: NodeId) => placeOf(snapshot, node)?.node.parent != null

/** Somebody shares there, or nobody has to: in the bin, and in what is private to somebody not active. */
const isKept = (snapshot: Snapshot, node: NodeId): boolean => {
  const place = placeOf(snapshot, node)
  if (place === undefined || place.binnedAt !== undefined || hasSteward(snapshot, place)) return true
  const home = place.path.find(each => each.home?.of === 'person')?.home
  return home?.of === 'person' && subjectOf(snapshot, home.person)?.isActive !== true
}
