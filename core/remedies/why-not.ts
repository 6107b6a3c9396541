import type { NodeId, PersonId } from '../base/ids.ts'
import { check } from '../access/evaluate.ts'
import type { Edit } from '../changes/edit.ts'
import { applyEdits } from '../changes/judge.ts'
import { affectedScopeOf } from '../changes/affected-scope.ts'
import { accessDiffOf, turnFrom } from '../access/access-diff.ts'
import { diffQueryOf } from '../impact/impact.ts'
import { type Action, beyond, has } from '../levels/action.ts'
import { snapshotOf } from '../state/snapshot.ts'
import type { Snapshot } from '../state/state.ts'
import { candidateRemedies } from './candidates.ts'

/** A set of edits that would let a person do what they may not; none of them could be left out. */
export interface Remedy {
  readonly edits: readonly Edit[]
  /** How many actions, at how many places, it gives to anybody beyond what was asked for. */
  readonly beyond: number
}

export interface WhyNot {
  /** The fewest edits first, then those that give least besides. */
  readonly remedies: readonly Remedy[]
  /** Whether all sets of up to three edits were tried. */
  readonly isComplete: boolean
}

export interface RemedyQuery {
  readonly person: PersonId
  readonly node: NodeId
  readonly action: Action
}

const mostEdits = 3

/**
 * The smallest remedies for somebody who may not do something: every set of up to three edits, out of those
 * on the place's path, on the person, and on teams with entries there, that has the effect and no edit too
 * many. It stops between tries, so that others have their turn, and is told there whether time is over: the core has
 * no clock of its own.
 */
export function* searchRemedies(snapshot: Snapshot, query: RemedyQuery): Generator<void, WhyNot, boolean> {
  if (has(check(snapshot, query.person, query.node), query.action)) return { remedies: [], isComplete: true }
  const candidates = candidateRemedies(snapshot, query)
  const found: (readonly Edit[])[] = []
  for (let size = 1; size <= mostEdits; size += 1)
    for (const edits of subsetsOf(candidates, size)) {
      const isOver = yield
      if (isOver) return { remedies: yield* ranked(snapshot, found), isComplete: false }
      const holdsLess = found.some(smaller => smaller.every(edit => edits.includes(edit)))
      if (!holdsLess && helps(snapshot, query, edits)) found.push(edits)
    }
  return { remedies: yield* ranked(snapshot, found), isComplete: true }
}

function helps(snapshot: Snapshot, { person, node, action }: RemedyQuery, edits: readonly Edit[]): boolean {
  const applied = applyEdits(snapshot, edits)
  return applied !== undefined && has(check(snapshotOf(applied.state, snapshot.at), person, node), action)
}

function* subsetsOf(edits: readonly Edit[], size: number, from = 0): Generator<readonly Edit[]> {
  if (size === 0) {
    yield []
    return
  }
  for (const [index, edit] of edits.entries())
    if (index >= from) for (const rest of subsetsOf(edits, size - 1, index + 1)) yield [edit, ...rest]
}

function* ranked(
  snapshot: Snapshot,
  found: readonly (readonly Edit[])[],
): Generator<void, Remedy[], boolean> {
  const remedies: Remedy[] = []
  for (const edits of found) {
    remedies.push({ edits, beyond: givenBeyond(snapshot, edits) })
    yield
  }
  return remedies.sort((a, b) => a.edits.length - b.edits.length || a.beyond - b.beyond)
}

/** Counted, since there can be very many: all that anybody gains, but for the one action that was asked for. */
function givenBeyond(snapshot: Snapshot, edits: readonly Edit[]): number {
  const applied = applyEdits(snapshot, edits)
  if (applied === undefined) return Number.POSITIVE_INFINITY
  const transition = {
    changes: applied.changes,
    before: snapshot,
    after: snapshotOf(applied.state, snapshot.at),
  }
  const { turns, segments } = accessDiffOf({
    ...diffQueryOf(affectedScopeOf(transition), transition),
    mostRows: 0,
  })
  let given = -1
  for (const [turn, times] of turns) {
    const [before, after] = turnFrom(turn)
    given += beyond(after, before).length * times
  }
  for (const { web, nodes } of segments) if (web > 0) given += nodes
  return given
}
