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
import { afterAllEnds, affectedRoots, affectedPlaces, type Transition } from '../affected-scope.ts'
import type { LongGuard, ProposedChanges } from './guard.ts'
import { topmostOf } from '../places.ts'
import { without } from './recovered.ts'

/**
 * A node that had an active person with share, or is new or brought back, has one afterwards: judged now, and again
 * with all ends passed, each against the state before at the same time; what is new or comes out of the bin, against its
 * parent.
 */
export const stewardLeft: LongGuard = function* (given) {
  const proposed = withoutLeaving(given)
  const indexes = [proposed.before.state.index, proposed.after.state.index] as const
  // What is only given takes nobody's access.
  const roots = affectedRoots({ ...proposed, changes: proposed.changes.filter(change => !isGift(change)) })
  yield 0
  const places: number[] = []
  for (const [looked, below] of belowEach(indexes, startsAt(indexes, roots)).entries()) {
    if (looked % lookedAtOnce === 0) yield 0
    if (below.side === 1) places.push(...cutSegmentsAt(indexes, below).roots)
  }
  for (const when of ['now', 'after ends'] as const) {
    const at = when === 'now' ? proposed.after.at : afterAllEnds
    const evaluation = evaluationOf(snapshotOf(proposed.after.state, at))
    const left: NodeId[] = []
    for (const [looked, place] of places.entries()) {
      if (looked % lookedAtOnce === 0) yield looked / places.length
      const node = idOf(evaluation.index.nodes, place) as NodeId
      if (!hasStewardIn(evaluation, place) && losesSteward(proposed, node, at)) left.push(node)
    }
    if (left.length > 0)
      return { code: 'no-steward-left', nodes: topmostOf(proposed.after.state, left), when }
  }
  return undefined
}

const lookedAtOnce = 100

const isGift = ({ table, before }: RecordChange): boolean => table === 'grants' && before === null

function losesSteward(proposed: ProposedChanges, node: NodeId, at: Instant): boolean {
  const after = snapshotOf(proposed.after.state, at)
  const root = rootOf(after.state).id
  if (node === root || isKept(after, node)) return false
  const before = snapshotOf(proposed.before.state, at)
  const was = placeOf(before, node)
  if (was !== undefined && was.binnedAt === undefined) return isKept(before, node)
  const above = parentThere(proposed, after, node) ?? root
  return above === root || isKept(before, above)
}

/** What a place is new in: the nearest place above it that existed. */
const parentThere = ({ before }: ProposedChanges, { state }: Snapshot, node: NodeId): NodeId | undefined =>
  pathOf(state, node)
    .slice(1)
    .find(({ id }) => rowOf(before.state.nodes, id) !== undefined)?.id

/**
 * Suspending or removing somebody, or ending their time, is never refused for what they alone steward: it
 * is judged as if they stayed, with all that hung on them.
 */
function withoutLeaving(proposed: ProposedChanges): ProposedChanges {
  const removed = new Set(
    proposed.edits.flatMap(edit => (edit.kind === 'person.remove' ? [edit.person] : [])),
  )
  return without(proposed, change => {
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
export function leftAlone(transition: Transition): NodeId[] {
  const { before, after } = transition
  const roots = new Set(affectedPlaces(transition).map(each => each.node))
  const left = new Set(
    [...roots].filter(
      node => isThere(before, node) && isThere(after, node) && isKept(before, node) && !isKept(after, node),
    ),
  )
  return [...left].filter(id => {
    const [node, ...above] = pathOf(after.state, id)
    const within = above.find(each => roots.has(each.id))
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
