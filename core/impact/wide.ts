import { hasRestrictedColumns } from '../access/column-differences.ts'
import { startsAt } from '../access/side-by-side.ts'
import { none, read } from '../base/column.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import { answered, type Steps, toEnd } from '../changes/steps.ts'
import { reachOf, topsTouched, type Touching } from '../changes/touched.ts'
import { snapshotOf } from '../state/snapshot.ts'
import type { Asked } from '../access/effect.ts'
import type { WideAnswer } from '../access/effect-answer.ts'
import { askedOf, differences, type ImpactAt, impactIn, indexesOf, personCount, sidesOf } from './impact.ts'
import { boundsIn, boundsOf } from './bounds.ts'
import { newsOf } from './news.ts'
import { peopleWithPowers, powerDifferences } from './powers.ts'
import { type Difference, differencesFrom } from '../access/effect-rows.ts'
import { type Counted, countedFrom } from '../access/summed.ts'

/** Past so many people times places it takes too long to look at each, at each instant at which something begins or ends. */
const wideFrom = 5000
/** So many times it may be looked at one of them at one instant. */
const looksAtMost = 200_000
/** With more rows than this a wide change is told in counts. */
const mostRows = 5000

/** What a change does, as far as the asker may know: of one that is wide asked in numbers alone. */
export function* effectsIn(whole: Touching, asker: PersonId): Steps<ImpactAt[]> {
  if (!isWide(whole)) return newsOf(whole, yield* impactIn(whole, asker))
  yield 0
  const told: ImpactAt[] = []
  const instants = wideInstants(whole)
  for (const [index, at] of instants.entries()) {
    yield index / instants.length
    const answer = yield* answered(wideQuestion(whole, at, asker))
    yield index / instants.length
    told.push(wideImpact(whole, at, answer))
  }
  return told
}

/** What a change did, to be kept. */
export function* recordIn(whole: Touching): Steps<Recorded> {
  if (!isWide(whole)) return { differences: differences(whole), counted: null, tops: [] }
  yield 0
  const answer = yield* answered(recordQuestion(whole))
  yield 0
  return wideRecord(whole, answer)
}

/** The same, at once. */
export const recordOf = (whole: Touching): Recorded => toEnd(recordIn(whole))

/** Whether a change reaches so many people and places that its effect is a question for a worker. */
export function isWide(touching: Touching): boolean {
  const { tops, people } = reachOf(touching)
  const sides = sidesOf(touching)
  const count = people === 'everybody' ? personCount(sides) : people.size
  const bounds = new Set(touching.changes.flatMap(each => boundsOf(each.after))).size
  let places = 0
  for (const [was, is] of startsAt(indexesOf(sides), tops)) {
    places += is === none ? read(sides[0].index.sizes, was) : read(sides[1].index.sizes, is)
    if (places * count > wideFrom || places * count * bounds > looksAtMost) return true
  }
  return false
}

/** Now, and when next something begins or ends of what is changed itself; ends of anything else are not looked at. */
export const wideInstants = (whole: Touching): Instant[] => [
  whole.after.at,
  ...boundsIn(whole).slice(0, laterAtMost),
]

const laterAtMost = 3

/** What is asked of a wide change to know what it does from an instant on. */
const wideQuestion = (whole: Touching, at: Instant, asker?: PersonId): Asked => ({
  ...askedOf(reachOf(whole), bothAt(whole, at), asker),
  mostRows,
})

const bothAt = ({ before, after }: Touching, at: Instant) => ({
  before: snapshotOf(before.state, at),
  after: snapshotOf(after.state, at),
})

/** What a wide change does from an instant on. */
function wideImpact(whole: Touching, at: Instant, answer: WideAnswer): ImpactAt {
  const { before, after } = bothAt(whole, at)
  return {
    at,
    ...toldBy(whole, answer),
    hiddenPlaces: answer.hidden,
    columns: [],
    powers: powerDifferences(peopleWithPowers(whole), before, after),
  }
}

/** The same of what was done, which is told to nobody in particular. */
export const recordQuestion = (touching: Touching): Asked => ({
  ...askedOf(reachOf(touching), touching),
  mostRows,
})

/** What was done, to be kept: each difference, or where they are too many those at which it begins, and their counts. */
function wideRecord(whole: Touching, answer: WideAnswer): Recorded {
  const told = toldBy(whole, answer)
  const { startRows } = answer
  if (told.counted === null) return { ...told, tops: [] }
  const differences = differencesFrom(indexesOf(sidesOf(whole)), startRows)
  return { ...told, differences, tops: [...topsTouched(whole)] }
}

interface ToldOf {
  readonly differences: readonly Difference[]
  readonly counted: Counted | null
}

export interface Recorded extends ToldOf {
  /** Where it begins, if it is counted. */
  readonly tops: readonly NodeId[]
}

function toldBy(whole: Touching, { rows, sum }: WideAnswer): ToldOf {
  const indexes = indexesOf(sidesOf(whole))
  if (rows !== null) return { differences: differencesFrom(indexes, rows), counted: null }
  const { before, after } = whole
  const hasColumns = hasRestrictedColumns(topsTouched(whole), before.state, after.state)
  return { differences: [], counted: countedFrom(indexes, sum, hasColumns) }
}
