import { none, read } from '../base/column.ts'
import type { NodeId } from '../base/ids.ts'
import { numberOf } from '../base/numbering.ts'
import { type AccessIndex, inStretch, state } from '../index/layout.ts'
import { type Class, type Classes, enter, leave, type Side, type Sides } from './classes.ts'
import { statesOf } from './evaluate.ts'
import { type Cuts, type Region, regionsBelow } from './regions.ts'

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
  readonly regions: readonly Region[]
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

/** A region as the walk comes to it: the classes of people hold what they are given there on each side. */
export interface Met {
  readonly region: Region
  /** Its top on each side; `none` where it is not there. */
  readonly tops: Start
  /** The states on the way up. */
  readonly states: Sides<number>
}

/** Where the way down stands: the region, how much is to be taken back, and the states met on each side. */
interface Frame {
  readonly place: number
  readonly depth: number
  readonly states: Sides<number>
}

/** Comes to each region below a start, each after the one in which it lies. */
export function walkBelow(classes: Classes, { start, regions }: Below, visit: (met: Met) => void): void {
  const frames: Frame[] = []
  for (const [place, region] of regions.entries()) {
    while (frames.length > 0 && frames.at(-1)?.place !== region.within)
      leave(classes, frames.pop()?.depth ?? 0)
    const depth = classes.undoing.length
    const tops: Start = place === 0 ? start : [within(start[0], region), within(start[1], region)]
    const states = goDownBoth(classes, tops, frames.at(-1)?.states)
    frames.push({ place, depth, states })
    visit({ region, tops, states })
  }
  leave(classes, 0)
}

/** Below a start that one side lacks, that side has nothing. */
const within = (start: number, { top }: Region): number => (start === none ? none : top)

const goDownBoth = (classes: Classes, [was, is]: Start, above: Sides<number> | undefined): Sides<number> => [
  goDown(classes, 0, { node: was, above: above?.[0] }),
  goDown(classes, 1, { node: is, above: above?.[1] }),
]

/** Down into the stretch that begins at a node, if one does; at the start through all that lie above. */
function goDown(
  classes: Classes,
  side: Side,
  { node, above }: { readonly node: number; readonly above: number | undefined },
): number {
  if (node === none) return state.binned
  const { index } = classes.sides[side]
  const stretch = read(index.stretchOf, node)
  const base = stretch * inStretch.width
  if (above !== undefined) {
    if (read(index.stretches, base + inStretch.head) !== node) return above
    enter(classes, side, stretch)
    return above | statesOf(index, read(index.stretches, base + inStretch.state))
  }
  const way: number[] = []
  for (let each = stretch; each !== none; each = read(index.stretches, each * inStretch.width + inStretch.up))
    way.push(each)
  let states = 0
  for (const each of way.toReversed()) {
    enter(classes, side, each)
    states |= statesOf(index, read(index.stretches, each * inStretch.width + inStretch.state))
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
      for (let place = 1; place < regions.length; place += 1) {
        const { top } = regions[place] as Region
        const stretch = read(stretchOf, top)
        if (read(stretches, stretch * inStretch.width + inStretch.head) === top) visit(side, stretch)
      }
    }
}

/** The class of the only person that classes were made for. */
export const onlyClass = ({ people, classOf, list }: Classes): Class =>
  list[classOf[people[0] as number] as number] as Class
