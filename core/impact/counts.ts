import { afterStates, capped } from '../access/evaluate.ts'
import {
  apart,
  type Class,
  type Classes,
  createClasses,
  leave,
  settle,
  type Side,
  type Sides,
} from '../access/classes.ts'
import { isPublicIn, theWeb } from '../access/public.ts'
import { draftAt, type Met, regionsOf, type Start, startsAt, walkBelow } from '../access/side-by-side.ts'
import { personById, type Sight, sightOf } from '../access/sight.ts'
import { none } from '../base/column.ts'
import { reachOf, type Touching } from '../changes/touched.ts'
import { state } from '../index/layout.ts'
import { type ActionSet, bitOf, noActions } from '../levels/action.ts'

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
  for (const below of regionsOf([sides[0].index, sides[1].index], starts))
    walkBelow(classes, below, met => countPiece(told, met))
  settle(classes)
  return { gains: classes.gains, losses: classes.losses, pieces: told.pieces, turns: told.turns }
}

/** All that a change set makes different now. */
export function effectCounts(touching: Touching): Counts {
  const { before, after } = touching
  const sides = [sightOf(before), sightOf(after)] as const
  const { tops, people } = reachOf(touching)
  return countDifferences({
    sides,
    starts: startsAt([before.state.index, after.state.index], tops),
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

/** 1 where the web comes to see a place, -1 where it no longer does. */
function webAt(sides: Sides<Sight>, tops: Start): number {
  const [before, after] = ([0, 1] as const).map(
    side => tops[side] !== none && isPublicIn(sides[side], tops[side]),
  )
  if (before === after) return 0
  return after === true ? 1 : -1
}
