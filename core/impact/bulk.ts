import { hasRestrictedColumns } from '../access/column-differences.ts'
import { startsAt } from '../access/side-by-side.ts'
import { none, read } from '../base/vector.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import { answered, type Steps, toEnd } from '../changes/steps.ts'
import { affectedScopeOf, affectedRoots, type Transition } from '../changes/affected-scope.ts'
import { snapshotOf } from '../state/snapshot.ts'
import type { DiffQuery } from '../access/access-diff.ts'
import type { BulkAnswer } from '../access/bulk-answer.ts'
import {
  diffQueryOf,
  differences,
  type ImpactAt,
  impactIn,
  indexesOf,
  personCount,
  sidesOf,
} from './impact.ts'
import { boundsIn, boundsOf } from './bounds.ts'
import { newsOf } from './news.ts'
import { peopleWithPowers, powerDifferences } from './powers.ts'
import { type Difference, differencesFrom } from '../access/diff-rows.ts'
import { type Counted, countedFrom } from '../access/totals.ts'

/** Past so many people times places it takes too long to look at each, at each instant at which something begins or ends. */
const bulkFrom = 5000
/** So many times it may be looked at one of them at one instant. */
const checksAtMost = 200_000
/** With more rows than this a wide change is told in counts. */
const mostRows = 5000

/** What a change does, as far as the asker may know: of one that is wide asked in numbers alone. */
export function* differencesIn(transition: Transition, asker: PersonId): Steps<ImpactAt[]> {
  if (!isBulk(transition)) return newsOf(transition, yield* impactIn(transition, asker))
  yield 0
  const impacts: ImpactAt[] = []
  const instants = bulkInstants(transition)
  for (const [index, at] of instants.entries()) {
    yield index / instants.length
    const answer = yield* answered(bulkQuestion(transition, at, asker))
    yield index / instants.length
    impacts.push(bulkImpact(transition, at, answer))
  }
  return impacts
}

/** What a change did, to be kept. */
export function* recordIn(transition: Transition): Steps<RecordedImpact> {
  if (!isBulk(transition)) return { differences: differences(transition), counted: null, roots: [] }
  yield 0
  const answer = yield* answered(recordQuestion(transition))
  yield 0
  return bulkRecord(transition, answer)
}

/** The same, at once. */
export const recordOf = (transition: Transition): RecordedImpact => toEnd(recordIn(transition))

/** Whether a change reaches so many people and places that its effect is a question for a worker. */
export function isBulk(transition: Transition): boolean {
  const { roots, people } = affectedScopeOf(transition)
  const sides = sidesOf(transition)
  const count = people === 'everybody' ? personCount(sides) : people.size
  const bounds = new Set(transition.changes.flatMap(each => boundsOf(each.after))).size
  let places = 0
  for (const [was, is] of startsAt(indexesOf(sides), roots)) {
    places += is === none ? read(sides[0].index.sizes, was) : read(sides[1].index.sizes, is)
    if (places * count > bulkFrom || places * count * bounds > checksAtMost) return true
  }
  return false
}

/** Now, and when next something begins or ends of what is changed itself; ends of anything else are not looked at. */
export const bulkInstants = (transition: Transition): Instant[] => [
  transition.after.at,
  ...boundsIn(transition).slice(0, laterAtMost),
]

const laterAtMost = 3

/** What is asked of a wide change to know what it does from an instant on. */
const bulkQuestion = (transition: Transition, at: Instant, asker?: PersonId): DiffQuery => ({
  ...diffQueryOf(affectedScopeOf(transition), bothAt(transition, at), asker),
  mostRows,
})

const bothAt = ({ before, after }: Transition, at: Instant) => ({
  before: snapshotOf(before.state, at),
  after: snapshotOf(after.state, at),
})

/** What a wide change does from an instant on. */
function bulkImpact(transition: Transition, at: Instant, answer: BulkAnswer): ImpactAt {
  const { before, after } = bothAt(transition, at)
  return {
    at,
    ...toldBy(transition, answer),
    hiddenPlaces: answer.hidden,
    columns: [],
    powers: powerDifferences(peopleWithPowers(transition), before, after),
  }
}

/** The same of what was done, which is told to nobody in particular. */
export const recordQuestion = (transition: Transition): DiffQuery => ({
  ...diffQueryOf(affectedScopeOf(transition), transition),
  mostRows,
})

/** What was done, to be kept: each difference, or where they are too many those at which it begins, and their counts. */
function bulkRecord(transition: Transition, answer: BulkAnswer): RecordedImpact {
  const record = toldBy(transition, answer)
  const { startRows } = answer
  if (record.counted === null) return { ...record, roots: [] }
  const differences = differencesFrom(indexesOf(sidesOf(transition)), startRows)
  return { ...record, differences, roots: [...affectedRoots(transition)] }
}

interface ToldOf {
  readonly differences: readonly Difference[]
  readonly counted: Counted | null
}

export interface RecordedImpact extends ToldOf {
  /** Where it begins, if it is counted. */
  readonly roots: readonly NodeId[]
}

function toldBy(transition: Transition, { rows, sum }: BulkAnswer): ToldOf {
  const indexes = indexesOf(sidesOf(transition))
  if (rows !== null) return { differences: differencesFrom(indexes, rows), counted: null }
  const { before, after } = transition
  const hasColumns = hasRestrictedColumns(affectedRoots(transition), before.state, after.state)
  return { differences: [], counted: countedFrom(indexes, sum, hasColumns) }
}
