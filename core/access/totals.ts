import type { Side, Sides } from './classes.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { idOf } from '../base/numbering.ts'
import type { AccessIndex } from '../index/layout.ts'
import type { ActionSet } from '../levels/action.ts'
import { type AccessDiff, type SegmentCount, turnFrom } from './access-diff.ts'
import { personAt } from './diff-rows.ts'

/** What an effect comes to, small enough to be sent and shown whatever its size; in numbers. */
export interface Summed {
  readonly gains: Total
  readonly losses: Total
  /** At how many places anything differs. */
  readonly places: number
  /** What people had, what they have then, and at how many places for how many of them, added up; the most first. */
  readonly turns: readonly (readonly [ActionSet, ActionSet, number])[]
  /** Those for whom most differs: by number, at how many places they have more, and less. */
  readonly mostPeople: readonly (readonly [number, number, number])[]
  /** The segments at which most differs. */
  readonly mostPlaces: readonly SegmentCount[]
  /** The same for the same effect, and hardly for another one. */
  readonly digest: string
}

export interface Total {
  readonly people: number
  readonly places: number
  readonly isWeb: boolean
}

/** So many people and places are named. */
const namedAtMost = 50

export function summed({ people, gains, losses, segments, turns }: AccessDiff): Summed {
  const differing: [number, number, number][] = []
  for (const [place, person] of people.entries()) {
    const more = gains[place] as number
    const less = losses[place] as number
    if (more + less > 0) differing.push([person, more, less])
  }
  const allTurns = [...turns].map(([turn, times]) => [...turnFrom(turn), times] as const)
  const sorted = segments.toSorted((a, b) => a.node - b.node)
  return {
    gains: {
      people: differing.filter(([, more]) => more > 0).length,
      places: placesIn(segments.filter(each => each.gaining > 0 || each.web > 0)),
      isWeb: segments.some(each => each.web > 0),
    },
    losses: {
      people: differing.filter(([, , less]) => less > 0).length,
      places: placesIn(segments.filter(each => each.losing > 0 || each.web < 0)),
      isWeb: segments.some(each => each.web < 0),
    },
    places: placesIn(segments),
    turns: allTurns.toSorted((a, b) => b[2] - a[2] || a[0] - b[0] || a[1] - b[1]),
    mostPeople: differing.toSorted((a, b) => b[1] + b[2] - a[1] - a[2] || a[0] - b[0]).slice(0, namedAtMost),
    mostPlaces: sorted.toSorted((a, b) => weightOf(b) - weightOf(a)).slice(0, namedAtMost),
    digest: digestOf([
      ...differing.toSorted((a, b) => a[0] - b[0]).flat(),
      ...sorted.flatMap(({ node, nodes, gaining, losing, web }) => [node, nodes, gaining, losing, web]),
      ...allTurns.flat(),
    ]),
  }
}

const placesIn = (segments: readonly SegmentCount[]) => segments.reduce((sum, each) => sum + each.nodes, 0)

const weightOf = ({ nodes, gaining, losing, web }: SegmentCount) => nodes * (gaining + losing + Math.abs(web))

/** Two sums over all numbers, each by another prime. */
function digestOf(numbers: readonly number[]): string {
  let first = 0x811c9dc5
  let second = 0x9747b28c
  for (const number of numbers) {
    first = Math.imul(first ^ number, 0x01000193)
    second = Math.imul(second ^ (number + 0x9e37), 0x5bd1e995)
    second ^= second >>> 15
  }
  return `${(first >>> 0).toString(36)}.${(second >>> 0).toString(36)}.${numbers.length}`
}

/** The same with ids. */
export interface Counted extends Omit<Summed, 'mostPeople' | 'mostPlaces'> {
  readonly mostPeople: readonly {
    readonly person: PersonId
    readonly gains: number
    readonly losses: number
  }[]
  readonly mostPlaces: readonly CountedPlace[]
  /** Whether restricted columns of boards lie there: those are not counted. */
  readonly hasColumns: boolean
}

export interface CountedPlace extends Pick<SegmentCount, 'nodes' | 'gaining' | 'losing' | 'web'> {
  readonly node: NodeId
}

export const countedFrom = (indexes: Sides<AccessIndex>, sum: Summed, hasColumns: boolean): Counted => ({
  ...sum,
  mostPeople: sum.mostPeople.map(([number, gains, losses]) => ({
    person: personAt(indexes, number),
    gains,
    losses,
  })),
  mostPlaces: sum.mostPlaces.map(({ side, node, ...counts }) => ({
    ...counts,
    node: nodeAt(indexes, side, node),
  })),
  hasColumns,
})

const nodeAt = (indexes: Sides<AccessIndex>, side: Side, node: number): NodeId =>
  idOf(indexes[side].nodes, node) as NodeId
