import { none, read } from '../base/column.ts'
import type { NodeId } from '../base/ids.ts'
import { numberOf } from '../base/numbering.ts'
import { type AccessIndex, inStretch, state } from '../index/layout.ts'
import { type Class, type Classes, enter, leave, type Side, type Sides } from './classes.ts'
import { statesOf } from './evaluate.ts'
import { type Cuts, type Regions, regionsBelow } from './regions.ts'

/**
 * Two states of a tree side by side, below the places at which they differ: cut into pieces in which every node
 * answers alike to everybody, in both. Costs what the stretches below cost, not the places between.
 */

/** A place at which something differs, by its number on each side; `none` where it is not there. */
export type Start = Sides<number>

export type Indexes = Sides<AccessIndex>

/** What lies below is met from each of these once, and from the nearest one. */
export const startsAt = ([was, is]: Indexes, tops: Iterable<NodeId>): Start[] =>
  Array.from(tops, id => [numberOf(was.nodes, id) ?? none, numberOf(is.nodes, id) ?? none] as const).filter(
    ([before, after]) => before !== none || after !== none,
  )

/** What lies below some starts on one side. */
export interface Below {
  readonly start: Start
  /** On which side it is walked: where it is not there any more, as it was. */
  readonly side: Side
  readonly regions: Regions
}

export function regionsOf(indexes: Indexes, starts: readonly Start[]): Below[] {
  const cuts = [cutsFor(indexes, starts, 0), cutsFor(indexes, starts, 1)] as const
  return starts.map(start => {
    const side: Side = start[1] === none ? 0 : 1
    return { start, side, regions: regionsBelow(indexes[side], start[side], cuts[side]) }
  })
}

function cutsFor(indexes: Indexes, starts: readonly Start[], side: Side): Cuts {
  const here = starts.filter(each => each[side] !== none)
  const other = indexes[side === 0 ? 1 : 0]
  return {
    nodes: new Set(here.map(each => each[side])),
    stretches: new Set(here.map(each => read(indexes[side].stretchOf, each[side]))),
    alone: new Set(
      here.filter(each => draftAt(other, each[1 - side] as number) !== undefined).map(each => each[side]),
    ),
  }
}

/** Who made a draft; `undefined` where there is none. */
export function draftAt({ stretchOf, stretches }: AccessIndex, node: number): number | undefined {
  if (node === none) return undefined
  const base = read(stretchOf, node) * inStretch.width
  const isIt =
    read(stretches, base + inStretch.head) === node &&
    (read(stretches, base + inStretch.state) & state.draft) !== 0
  return isIt ? read(stretches, base + inStretch.maker) : undefined
}

/**
 * A region as the walk comes to it: the classes of people hold what they are given there on each side. The same
 * object each time.
 */
export interface Met {
  /** Its top, and that on each side: `none` where it is not there. */
  top: number
  was: number
  is: number
  nodes: number
  /** The states on the way up. */
  statesBefore: number
  statesAfter: number
}

/** Comes to each region below a start, each after the one in which it lies. */
export function walkBelow(classes: Classes, { start, regions }: Below, visit: (met: Met) => void): void {
  const { tops, nodes, within } = regions
  const met: Met = { top: 0, was: 0, is: 0, nodes: 0, statesBefore: 0, statesAfter: 0 }
  // Where the way down stands: regions, how much is to be taken back for each, and the states met on each side.
  const places: number[] = []
  const depths: number[] = []
  const before: number[] = []
  const after: number[] = []
  for (let place = 0; place < tops.length; place += 1) {
    while (places.length > 0 && places[places.length - 1] !== within[place]) {
      leave(classes, depths.pop() as number)
      places.pop()
      before.pop()
      after.pop()
    }
    depths.push(classes.undoing.length)
    met.top = tops[place] as number
    // Below a start that one side lacks, that side has nothing.
    met.was = place === 0 || start[0] === end ? start[0] : met.top
    met.is = place === 0 || start[1] === end ? start[1] : met.top
    met.nodes = nodes[place] as number
    met.statesBefore = goDown(classes, 0, { node: met.was, above: before[places.length - 1] })
    met.statesAfter = goDown(classes, 1, { node: met.is, above: after[places.length - 1] })
    places.push(place)
    before.push(met.statesBefore)
    after.push(met.statesAfter)
    visit(met)
  }
  leave(classes, 0)
}

// Their own copies: what is imported is looked up anew at each use.
const end = none
const { width: stretchWidth, head: headAt, state: stateAt, up: upAt } = inStretch

interface Down {
  readonly node: number
  /** The states met above; `undefined` at a start. */
  readonly above: number | undefined
}

/** Down into the stretch that begins at a node, if one does; at the start through all that lie above. */
function goDown(classes: Classes, side: Side, { node, above }: Down): number {
  if (node === end) return state.binned
  const { index } = classes.sides[side]
  const stretch = read(index.stretchOf, node)
  const row = stretch * stretchWidth
  if (above !== undefined) {
    if (read(index.stretches, row + headAt) !== node) return above
    enter(classes, side, stretch)
    const states = read(index.stretches, row + stateAt)
    return states === 0 ? above : above | statesOf(index, states)
  }
  const way: number[] = []
  for (let each = stretch; each !== end; each = read(index.stretches, each * stretchWidth + upAt))
    way.push(each)
  let states = 0
  for (const each of way.toReversed()) {
    enter(classes, side, each)
    states |= statesOf(index, read(index.stretches, each * stretchWidth + stateAt))
  }
  return states
}

/** Every stretch that has a say below some starts, on each side: those above, and those that begin there. */
export function eachStretch(
  indexes: Indexes,
  starts: readonly Start[],
  visit: (side: Side, stretch: number) => void,
): void {
  const above: Sides<Set<number>> = [new Set(), new Set()]
  for (const { start, regions } of regionsOf(indexes, starts))
    for (const side of [0, 1] as const) {
      if (start[side] === none) continue
      const { stretches, stretchOf } = indexes[side]
      for (let each = read(stretchOf, start[side]); each !== none && !above[side].has(each);) {
        above[side].add(each)
        visit(side, each)
        each = read(stretches, each * inStretch.width + inStretch.up)
      }
      for (let place = 1; place < regions.tops.length; place += 1) {
        const top = regions.tops[place] as number
        const stretch = read(stretchOf, top)
        if (read(stretches, stretch * inStretch.width + inStretch.head) === top) visit(side, stretch)
      }
    }
}

/** The class of the only person that classes were made for. */
export const onlyClass = ({ people, classOf, list }: Classes): Class =>
  list[classOf[people[0] as number] as number] as Class
