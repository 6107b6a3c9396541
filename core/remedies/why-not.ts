import type { NodeId, PersonId } from '../base/ids.ts'
import { check } from '../access/evaluate.ts'
import type { Edit } from '../changes/edit.ts'
import { applyEdits } from '../changes/judge.ts'
import { type Action, has, listActions } from '../levels/action.ts'
import { differences } from '../impact/impact.ts'
import { momentOf } from '../state/moment.ts'
import type { Moment } from '../state/state.ts'
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

export interface Asked {
  readonly person: PersonId
  readonly node: NodeId
  readonly action: Action
}

const mostEdits = 3

/**
 * The smallest remedies for somebody who may not do something: every set of up to three edits, out of those
 * on the place's path, on the person, and on teams with entries there, that has the effect and no edit too
 * many. `isOver` is asked between tries: the core has no clock of its own.
 */
export function whyNot(moment: Moment, asked: Asked, isOver: () => boolean = () => false): WhyNot {
  if (has(check(moment, asked.person, asked.node), asked.action)) return { remedies: [], isComplete: true }
  const candidates = candidateRemedies(moment, asked)
  const found: (readonly Edit[])[] = []
  for (let size = 1; size <= mostEdits; size += 1)
    for (const edits of subsetsOf(candidates, size)) {
      if (isOver()) return { remedies: ranked(moment, asked, found), isComplete: false }
      const holdsLess = found.some(smaller => smaller.every(edit => edits.includes(edit)))
      if (!holdsLess && helps(moment, asked, edits)) found.push(edits)
    }
  return { remedies: ranked(moment, asked, found), isComplete: true }
}

function helps(moment: Moment, { person, node, action }: Asked, edits: readonly Edit[]): boolean {
  const applied = applyEdits(moment, edits)
  return applied !== undefined && has(check(momentOf(applied.state, moment.at), person, node), action)
}

function* subsetsOf(edits: readonly Edit[], size: number, from = 0): Generator<readonly Edit[]> {
  if (size === 0) {
    yield []
    return
  }
  for (const [index, edit] of edits.entries())
    if (index >= from) for (const rest of subsetsOf(edits, size - 1, index + 1)) yield [edit, ...rest]
}

const ranked = (moment: Moment, asked: Asked, found: readonly (readonly Edit[])[]): Remedy[] =>
  found
    .map(edits => ({ edits, beyond: givenBeyond(moment, asked, edits) }))
    .sort((a, b) => a.edits.length - b.edits.length || a.beyond - b.beyond)

function givenBeyond(moment: Moment, { person, node, action }: Asked, edits: readonly Edit[]): number {
  const applied = applyEdits(moment, edits)
  if (applied === undefined) return Number.POSITIVE_INFINITY
  const after = momentOf(applied.state, moment.at)
  return differences({ changes: applied.changes, before: moment, after }).reduce((sum, each) => {
    const gained = listActions(each.after).filter(one => !has(each.before, one))
    const isAsked = each.person === person && each.node === node && gained.includes(action)
    return sum + gained.length - (isAsked ? 1 : 0)
  }, 0)
}
