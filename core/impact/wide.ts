import { hasRestrictedColumns } from '../access/column-differences.ts'
import { startsAt } from '../access/side-by-side.ts'
import { none, read } from '../base/column.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Instant, Span } from '../base/instant.ts'
import { reachOf, topsTouched, type Touching } from '../changes/touched.ts'
import { momentOf } from '../state/moment.ts'
import type { RecordChange } from '../state/state.ts'
import { type Asked, type Effect, effectOf } from '../access/effect.ts'
import { askedOf, type ImpactAt, indexesOf, personCount, sidesOf } from './impact.ts'
import { peopleWithPowers, powerDifferences } from './powers.ts'
import { type Difference, differencesFrom, type Rows } from '../access/effect-rows.ts'
import { type Counted, countedFrom, type Summed, summed } from './summed.ts'

/** Past so many people times places it takes too long to look at each, at each instant at which something begins or ends. */
const wideFrom = 5000
/** With more rows than this a wide change is told in counts. */
const mostRows = 5000

/** Whether a change reaches so many people and places that its effect is a question for a worker. */
export function isWide(touching: Touching): boolean {
  const { tops, people } = reachOf(touching)
  const sides = sidesOf(touching)
  const count = people === 'everybody' ? personCount(sides) : people.size
  let places = 0
  for (const [was, is] of startsAt(indexesOf(sides), tops)) {
    places += is === none ? read(sides[0].index.sizes, was) : read(sides[1].index.sizes, is)
    if (places * count > wideFrom) return true
  }
  return false
}

/** What is told of a wide change: row by row if the rows are few after all, else added up. */
export interface WideAnswer {
  readonly rows: Rows | null
  /** Of the places alone at which the change begins. */
  readonly startRows: Rows
  readonly sum: Summed
  readonly hidden: number
}

export function answerTo(asked: Asked): WideAnswer {
  const effect: Effect = effectOf(asked)
  return {
    rows: effect.rows,
    startRows: effect.startRows,
    sum: summed(effect),
    hidden: effect.hidden,
  }
}

/** Now, and when next something begins or ends of what is changed itself; ends of anything else are not looked at. */
export function wideInstants({ changes, after }: Touching): Instant[] {
  const bounds = changes.flatMap(each => [each.before, each.after].flatMap(row => boundsOf(row)))
  const later = [...new Set(bounds)].filter(bound => bound > after.at).sort((a, b) => a - b)
  return [after.at, ...later.slice(0, laterAtMost)]
}

const laterAtMost = 3

const boundsOf = (row: RecordChange['after']): Instant[] => {
  const { from = null, until = null } = (row ?? {}) as Partial<Span>
  return [from, until].filter(bound => bound !== null)
}

/** What is asked of a wide change to know what it does from an instant on. */
export const wideQuestion = (whole: Touching, at: Instant, asker?: PersonId): Asked => ({
  ...askedOf(reachOf(whole), bothAt(whole, at), asker),
  mostRows,
})

const bothAt = ({ before, after }: Touching, at: Instant) => ({
  before: momentOf(before.state, at),
  after: momentOf(after.state, at),
})

/** What a wide change does from an instant on. */
export function wideImpact(whole: Touching, at: Instant, answer: WideAnswer): ImpactAt {
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
export function wideRecord(whole: Touching, answer: WideAnswer): Recorded {
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
