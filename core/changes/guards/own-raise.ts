import { createClasses, type Sides } from '../../access/classes.ts'
import { columnDifferences } from '../../access/column-differences.ts'
import { capped, isSameSum } from '../../access/evaluate.ts'
import { belowEach, type Met, onlyClass, type Start, startsAt, walkBelow } from '../../access/side-by-side.ts'
import {
  isActiveIn,
  personById,
  type EvaluationContext,
  evaluationsOf,
} from '../../access/evaluation-context.ts'
import { rowOf } from '../../base/collection.ts'
import { none } from '../../base/vector.ts'
import type { NodeId, PersonId } from '../../base/ids.ts'
import { always, type Instant } from '../../base/instant.ts'
import { idOf } from '../../base/numbering.ts'
import { type ActionSet, holds, noActions } from '../../levels/action.ts'
import { snapshotOf } from '../../state/snapshot.ts'
import type { Membership } from '../../people/person.ts'
import { applyChanges, type Snapshot, type RecordChange } from '../../state/state.ts'
import { isJoining } from '../edits/member.ts'
import { instantsAt, instantsOf, type Within } from '../instants.ts'
import { topmostOf } from '../places.ts'
import type { Steps } from '../steps.ts'
import { isAffected, affectedRoots } from '../affected-scope.ts'
import type { LongGuard, ProposedChanges } from './guard.ts'
import { withoutRecovery } from './recovered.ts'

/**
 * Nobody gives themselves more than they had, or for longer, at a place that existed before. Read
 * now and at every later instant at which something begins or ends. Recovering access is the exception.
 */
export const ownRaise: LongGuard = function* (given) {
  const proposed = afterJoining(withoutRecovery(given))
  if (proposed.edits.some(edit => edit.kind === 'invitation.accept')) return undefined
  if (!isAffected(proposed, proposed.author)) return undefined
  const indexes = [proposed.before.state.index, proposed.after.state.index] as const
  const people = [proposed.author]
  const roots = affectedRoots(proposed)
  yield 0
  const within = { starts: startsAt(indexes, roots), people }
  yield 0
  // What is given to the author as before at these places is so in all that lies in them: that is so for most changes.
  if (proposed.changes.every(isEntry) && (yield* isSameEver(proposed, within))) return undefined
  const raised = new Set<NodeId>()
  const instants = instantsOf(proposed, within)
  for (const [index, at] of instants.entries()) {
    yield index / instants.length
    const [before, after] = snapshotsAt(proposed, at)
    for (const node of raisedIn([before, after], proposed.author, within.starts)) raised.add(node)
    for (const each of columnDifferences({ roots, people }, before, after)) {
      const isNew = rowOf(before.state.columns, each.column) === undefined
      if (!isNew && rank[each.after] > rank[each.before]) raised.add(each.at)
    }
  }
  return raised.size === 0
    ? undefined
    : { code: 'own-raise', nodes: topmostOf(proposed.after.state, [...raised]) }
}

const rank = { none: 0, see: 1, edit: 2 }

const isEntry = ({ table }: RecordChange): boolean => table === 'grants' || table === 'limits'

const snapshotsAt = ({ before, after }: ProposedChanges, at: Instant): Sides<Snapshot> => [
  snapshotOf(before.state, at),
  snapshotOf(after.state, at),
]

/** Whether the author is given the same at some places before and after, whenever it is read. */
function* isSameEver(proposed: ProposedChanges, within: Within): Steps<boolean> {
  for (const at of instantsAt(proposed, within)) {
    yield 0
    if (!isSameAt(proposed, within.starts, at)) return false
  }
  return true
}

/** The same at an instant. */
function isSameAt(proposed: ProposedChanges, starts: readonly Start[], at: Instant): boolean {
  let isSame = true
  walkOwn(snapshotsAt(proposed, at), proposed.author, {
    starts,
    visit: (_, isAlike) => void (isSame &&= isAlike),
  })
  return isSame
}

/** Read before archives and the bin take their part: bringing back is no raise. */
function raisedIn(snapshots: Sides<Snapshot>, author: PersonId, starts: readonly Start[]): NodeId[] {
  const { nodes } = snapshots[1].state.index
  const raised: NodeId[] = []
  walkOwn(snapshots, author, {
    starts,
    visit: ({ top }, _, [held, then]) => {
      if (!holds(held, then)) raised.push(idOf(nodes, top) as NodeId)
    },
  })
  return raised
}

interface Walk {
  readonly starts: readonly Start[]
  readonly visit: (met: Met, isAlike: boolean, held: Sides<ActionSet>) => void
}

/** Comes to each segment below some places that is there on both sides, where what lies in it can differ for somebody. */
function walkOwn(snapshots: Sides<Snapshot>, author: PersonId, { starts, visit }: Walk): void {
  const sides = evaluationsOf(...snapshots)
  const people = sides.map(evaluation => personById(evaluation, author))
  const person = people.find(each => each !== none)
  if (person === undefined) return
  const classes = createClasses(sides, Int32Array.of(person))
  const isHere = people.map(
    (each, side) => each !== none && isActiveIn(sides[side] as EvaluationContext, each),
  )
  const isSameCeiling = sides[0].index.guestCeiling === sides[1].index.guestCeiling
  for (const below of belowEach([sides[0].index, sides[1].index], starts))
    walkBelow(classes, below, met => {
      if (met.was === none || met.is === none) return false
      // Nothing that has a name is made here: there can be very many segments, and naming it takes longer than all else.
      const { sums } = onlyClass(classes)
      const isAlike = isSameCeiling && isHere[0] === isHere[1] && isSameSum(sums[0], sums[1])
      const held = isHere[0] === true ? capped(sides[0].index, sums[0]) : noActions
      const then = isHere[1] === true ? capped(sides[1].index, sums[1]) : noActions
      visit(met, isAlike, [held, then])
      return isAlike
    })
}

/** Open teams that the author joins are open to the author anyway: raises are read as if they were in already. */
function afterJoining(proposed: ProposedChanges): ProposedChanges {
  const { author, before, after, edits } = proposed
  const joined = edits.flatMap((edit): RecordChange[] => {
    if (edit.kind !== 'member.add' || !isJoining({ author, before, now: after }, edit)) return []
    const { membership: id, team, person } = edit
    const row: Membership = { id, team, person, lead: false, since: before.at, ...always }
    return [{ table: 'memberships', id, before: null, after: row }]
  })
  return joined.length === 0
    ? proposed
    : { ...proposed, before: snapshotOf(applyChanges(before.state, joined), before.at) }
}
