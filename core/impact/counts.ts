import { afterStates, capped, statesOf } from '../access/evaluate.ts'
import { isPublicIn, theWeb } from '../access/public.ts'
import { type Cuts, type Region, regionsBelow } from '../access/regions.ts'
import { nodeById, personById, type Sight, sightOf } from '../access/sight.ts'
import { none, read } from '../base/column.ts'
import { touchedBy, type Touching } from '../changes/touched.ts'
import { type AccessIndex, inStretch, state } from '../index/layout.ts'
import { type ActionSet, bitOf, noActions } from '../levels/action.ts'
import {
  apart,
  type Class,
  type Classes,
  createClasses,
  enter,
  leave,
  settle,
  type Side,
  type Sides,
} from './classes.ts'

/** What differs without a change and with it, counted: the answer where its rows would be millions. */
export interface Counts {
  /** By a person's number, at how many places they have something more, and something less. */
  readonly gains: Int32Array
  readonly losses: Int32Array
  /** Where anybody's access differs. */
  readonly pieces: readonly PieceCount[]
  /** By what people had and have then, at how many places for how many people, added up: see `turnOf`. */
  readonly turns: ReadonlyMap<number, number>
}

/** A place and all below it that answers alike: how many people have more there, and less. The web is one of them. */
export interface PieceCount {
  readonly node: number
  readonly nodes: number
  readonly gaining: number
  readonly losing: number
}

/** A place at which something changed, by its number on each side; `none` where it is not there. */
export type Start = Sides<number>

export interface Counting {
  readonly sides: Sides<Sight>
  readonly starts: readonly Start[]
  readonly people: readonly number[]
  /** Whether the web is asked for too. */
  readonly isWeb: boolean
}

/** Counts all that differs now below some places. Costs what the stretches below cost, and of whom their entries speak. */
export function countDifferences({ sides, starts, people, isWeb }: Counting): Counts {
  const classes = createClasses(sides, people)
  const told: Telling = { classes, isWeb, pieces: [], turns: new Map() }
  const cuts = [cutsFor(sides, starts, 0), cutsFor(sides, starts, 1)] as const
  for (const start of starts) {
    const side: Side = start[1] === none ? 0 : 1
    const regions = regionsBelow(sides[side].index, start[side], cuts[side])
    countBelow(told, start, regions)
  }
  settle(classes)
  return { gains: classes.gains, losses: classes.losses, pieces: told.pieces, turns: told.turns }
}

function cutsFor(sides: Sides<Sight>, starts: readonly Start[], side: Side): Cuts {
  const here = starts.filter(each => each[side] !== none)
  return {
    nodes: new Set(here.map(each => each[side])),
    stretches: new Set(here.map(each => read(sides[side].index.stretchOf, each[side]))),
    alone: new Set(
      here
        .filter(
          each =>
            each[1 - side] !== none && isDraft(sides[side === 0 ? 1 : 0].index, each[1 - side] as number),
        )
        .map(each => each[side]),
    ),
  }
}

/** All that a change set makes different now. */
export function effectCounts(touching: Touching): Counts {
  const { before, after } = touching
  const sides = [sightOf(before), sightOf(after)] as const
  const { tops, people } = touchedBy(touching)
  return countDifferences({
    sides,
    starts: [...tops]
      .map(id => [nodeById(sides[0], id), nodeById(sides[1], id)] as const)
      .filter(([was, is]) => was !== none || is !== none),
    people: people.flatMap(id => {
      const number = sides.map(sight => personById(sight, id)).find(each => each !== none)
      return number === undefined ? [] : [number]
    }),
    isWeb: people.includes(theWeb),
  })
}

interface Telling {
  readonly classes: Classes
  readonly isWeb: boolean
  readonly pieces: PieceCount[]
  readonly turns: Map<number, number>
}

/** Where the way down stands: the region, how much is to be taken back, and the states met on each side. */
interface Frame {
  readonly place: number
  readonly depth: number
  readonly states: Sides<number>
}

function countBelow(told: Telling, start: Start, regions: readonly Region[]): void {
  const { classes } = told
  const frames: Frame[] = []
  for (const [place, region] of regions.entries()) {
    while (frames.length > 0 && frames.at(-1)?.place !== region.within)
      leave(classes, frames.pop()?.depth ?? 0)
    const depth = classes.undoing.length
    const tops: Start = place === 0 ? start : [within(start[0], region), within(start[1], region)]
    const states = goDownBoth(classes, tops, frames.at(-1)?.states)
    frames.push({ place, depth, states })
    countPiece(told, { region, tops, states })
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

interface Met {
  readonly region: Region
  readonly tops: Start
  readonly states: Sides<number>
}

function countPiece(told: Telling, met: Met): void {
  const { region, tops } = met
  const { sides } = told.classes
  const drafts: Drafts = [draftAt(sides[0].index, tops[0]), draftAt(sides[1].index, tops[1])]
  const counted = { gaining: 0, losing: 0 }
  if (drafts[0] === undefined && drafts[1] === undefined) countClasses(told, met, counted)
  else countDraft(told, { ...met, drafts }, counted)
  const web = told.isWeb ? webAt(sides, tops) : 0
  if (web > 0) counted.gaining += 1
  if (web < 0) counted.losing += 1
  if (counted.gaining + counted.losing > 0)
    told.pieces.push({ node: region.top, nodes: region.nodes, ...counted })
}

interface Counted {
  gaining: number
  losing: number
}

function countClasses({ classes, turns }: Telling, { region, states }: Met, counted: Counted): void {
  const [was, is] = classes.sides
  const isSameCeiling = was.index.guestCeiling === is.index.guestCeiling
  for (const each of classes.list) {
    if (each.count === 0 || (isAlike(each, states) && isSameCeiling)) continue
    const before = each.isTold[0] ? afterStates(capped(was.index, each.sums[0]), states[0]) : noActions
    const after = each.isTold[1] ? afterStates(capped(is.index, each.sums[1]), states[1]) : noActions
    if (before !== after) note(turns, { each, nodes: region.nodes, before, after }, counted)
  }
}

/** The same on both sides without a look at what it comes to: that is so for most, nearly everywhere. */
function isAlike({ sums: [was, is], isTold }: Class, states: Sides<number>): boolean {
  return (
    was.given === is.given &&
    was.cap === is.cap &&
    was.capUnlessSpared === is.capUnlessSpared &&
    was.isGuest === is.isGuest &&
    isTold[0] === isTold[1] &&
    ((states[0] ^ states[1]) & (state.archived | state.binned)) === 0
  )
}

interface Turned {
  readonly each: Class
  readonly nodes: number
  readonly before: ActionSet
  readonly after: ActionSet
}

function note(turns: Map<number, number>, { each, nodes, before, after }: Turned, counted: Counted): void {
  if ((after & ~before) !== 0) {
    each.gains += nodes
    counted.gaining += each.count
  }
  if ((before & ~after) !== 0) {
    each.losses += nodes
    counted.losing += each.count
  }
  const turn = turnOf(before, after)
  turns.set(turn, (turns.get(turn) ?? 0) + each.count * nodes)
}

const turnStep = 0x40000000
/** What it was and what it becomes, in one number. */
export const turnOf = (before: ActionSet, after: ActionSet): number => before * turnStep + after

/** At a draft, on one side or both: who made it stands apart. */
function countDraft(
  { classes, turns }: Telling,
  { region, states, drafts }: Met & { readonly drafts: Drafts },
  counted: Counted,
): void {
  const depth = classes.undoing.length
  for (const maker of new Set(drafts))
    if (maker !== undefined && (classes.classOf[maker] ?? none) !== none) apart(classes, [maker])
  for (const [place, each] of classes.list.entries()) {
    if (each.count === 0) continue
    const answer = (side: Side) => {
      const maker = drafts[side]
      const held = each.isTold[side] ? capped(classes.sides[side].index, each.sums[side]) : noActions
      const isMaker = maker !== undefined && classes.classOf[maker] === place
      const reads = (held & readingDrafts) !== 0 || (isMaker && (held & adding) !== 0)
      return maker !== undefined && !reads ? noActions : afterStates(held, states[side])
    }
    const [before, after] = [answer(0), answer(1)]
    if (before !== after) note(turns, { each, nodes: region.nodes, before, after }, counted)
  }
  leave(classes, depth)
}

/** Who made the draft that a piece begins at; `undefined` if it is none. */
type Drafts = Sides<number | undefined>

const readingDrafts = bitOf('change') | bitOf('share')
const adding = bitOf('add')

const isDraft = (index: AccessIndex, node: number): boolean => draftAt(index, node) !== undefined

/** Who made a draft; `undefined` where there is none. */
function draftAt({ stretchOf, stretches }: AccessIndex, node: number): number | undefined {
  if (node === none) return undefined
  const base = read(stretchOf, node) * inStretch.width
  const isIt =
    read(stretches, base + inStretch.head) === node &&
    (read(stretches, base + inStretch.state) & state.draft) !== 0
  return isIt ? read(stretches, base + inStretch.maker) : undefined
}

/** 1 where the web comes to see a place, -1 where it no longer does. */
function webAt(sides: Sides<Sight>, tops: Start): number {
  const [before, after] = ([0, 1] as const).map(
    side => tops[side] !== none && isPublicIn(sides[side], tops[side]),
  )
  if (before === after) return 0
  return after === true ? 1 : -1
}
