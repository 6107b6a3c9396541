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
  const { sides } = told.classes
  const maker = draftAt(sides[0].index, met.was)
  const nextMaker = draftAt(sides[1].index, met.is)
  const counted = { gaining: 0, losing: 0 }
  if (maker === undefined && nextMaker === undefined) countClasses(told, met, counted)
  else countDraft(told, { met, drafts: [maker, nextMaker] }, counted)
  const web = told.isWeb ? webAt(sides, met) : 0
  if (web > 0) counted.gaining += 1
  if (web < 0) counted.losing += 1
  if (counted.gaining + counted.losing > 0) told.pieces.push({ node: met.top, nodes: met.nodes, ...counted })
}

interface Counted {
  gaining: number
  losing: number
}

function countClasses({ classes, turns }: Telling, met: Met, counted: Counted): void {
  const [was, is] = classes.sides
  const isSameCeiling = was.index.guestCeiling === is.index.guestCeiling
  for (const each of classes.list) {
    if (each.count === 0 || (isSameCeiling && isAlike(each, met))) continue
    const before = each.isTold[0] ? afterStates(capped(was.index, each.sums[0]), met.statesBefore) : noActions
    const after = each.isTold[1] ? afterStates(capped(is.index, each.sums[1]), met.statesAfter) : noActions
    if (before !== after) note(turns, { each, nodes: met.nodes, before, after }, counted)
  }
}

/** The same on both sides without a look at what it comes to: that is so for most, nearly everywhere. */
function isAlike({ sums, isTold }: Class, met: Met): boolean {
  const was = sums[0]
  const is = sums[1]
  return (
    was.given === is.given &&
    was.cap === is.cap &&
    was.capUnlessSpared === is.capUnlessSpared &&
    was.isGuest === is.isGuest &&
    isTold[0] === isTold[1] &&
    ((met.statesBefore ^ met.statesAfter) & (state.archived | state.binned)) === 0
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
  { met, drafts }: { readonly met: Met; readonly drafts: Drafts },
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
      const states = side === 0 ? met.statesBefore : met.statesAfter
      return maker !== undefined && !reads ? noActions : afterStates(held, states)
    }
    const [before, after] = [answer(0), answer(1)]
    if (before !== after) note(turns, { each, nodes: met.nodes, before, after }, counted)
  }
  leave(classes, depth)
}

/** Who made the draft that a piece begins at; `undefined` if it is none. */
type Drafts = Sides<number | undefined>

const readingDrafts = bitOf('change') | bitOf('share')
const adding = bitOf('add')

/** 1 where the web comes to see a place, -1 where it no longer does. */
function webAt(sides: Sides<Sight>, { was, is }: Met): number {
  const before = was !== none && isPublicIn(sides[0], was)
  const after = is !== none && isPublicIn(sides[1], is)
  return before === after ? 0 : after ? 1 : -1
}
