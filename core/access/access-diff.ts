import { afterStates, capped, checkIn, isSameSum } from './evaluate.ts'
import {
  apart,
  type Class,
  type Classes,
  createClasses,
  leave,
  settle,
  type Side,
  type Sides,
} from './classes.ts'
import { isPublicIn } from './public.ts'
import { type Below, belowEach, draftAt, isRoot, type Met, type Start, walkBelow } from './side-by-side.ts'
import type { EvaluationContext } from './evaluation-context.ts'
import { none, read } from '../base/vector.ts'
import { inTree, state } from '../index/layout.ts'
import { type ActionSet, bitOf, noActions } from '../levels/action.ts'
import { type DiffRow, type Rows, rowsApart, rowsFrom, webNumber } from './diff-rows.ts'

/**
 * What differs below some places without a change and with it, in numbers alone, so that a worker can be asked: row by
 * row where the rows are few, else counted. Costs what the segments cost in which anybody differs, and of whom
 * their entries speak: who is given and taken alike is summed up once (see `Classes`).
 */
export interface DiffQuery {
  readonly sides: Sides<EvaluationContext>
  readonly starts: readonly Start[]
  /** By number, for whom. */
  readonly people: Int32Array
  /** Whether visitors without an account are asked for too. */
  readonly isWeb: boolean
  /** Told is what this person, by number, may know; `none` for all of it. */
  readonly asker: number
  /** With more rows than this they are only counted. */
  readonly mostRows: number
  /** Called now and then with how much of all is done, 0 to 1; what it throws ends the counting. */
  readonly onStep?: (done: number) => void
}

export interface AccessDiff {
  readonly people: Int32Array
  /** By a person's place among these, at how many places they have something more, and something less. */
  readonly gains: Int32Array
  readonly losses: Int32Array
  /** Where anybody's access differs. */
  readonly segments: readonly SegmentCount[]
  /** By what people had and have then, at how many places for how many people, added up: see `turnOf`. */
  readonly turns: ReadonlyMap<number, number>
  /** Places with a difference that the asker gives access above, and cannot see. */
  readonly hidden: number
  /** `null` where there are more than were asked for. */
  readonly rows: Rows | null
  /** Of the places alone at which the change begins; none where those are too many too. */
  readonly startRows: Rows
}

/** A place and all below it that answers alike: how many people have more there, and less; the web is none of them. */
export interface SegmentCount {
  /** On which side it is: 0 where it is there no more. */
  readonly side: Side
  readonly node: number
  readonly nodes: number
  readonly gaining: number
  readonly losing: number
  /** 1 where the web comes to see it, -1 where it no longer does. */
  readonly web: number
}

export function accessDiffOf(query: DiffQuery): AccessDiff {
  const { sides, starts, people, mostRows } = query
  const indexes = [sides[0].index, sides[1].index] as const
  const telling: Telling = {
    query,
    classes: createClasses(sides, people),
    turned: [],
    shared: [],
    segments: [],
    turns: new Map(),
    found: { rows: [], count: 0 },
    atStarts: { rows: [], count: 0 },
    hidden: 0,
    done: 0,
    steps: 0,
    total: starts.reduce((sum, start) => sum + sizeAt(sides, start), 0),
  }
  const belows = belowEach(indexes, starts)
  for (const below of belows) {
    telling.shared = []
    walkBelow(telling.classes, below, met => tellSegment(telling, below, met))
  }
  settle(telling.classes)
  const { gains, losses } = telling.classes
  const { segments, turns, hidden, found, atStarts } = telling
  const rows = found.count > mostRows ? null : rowsApart(indexes, found.rows)
  const startRows = rowsFrom(atStarts.rows)
  return { people, gains, losses, segments, turns, hidden, rows, startRows }
}

const sizeAt = (sides: Sides<EvaluationContext>, [was, is]: Start): number =>
  is === none ? read(sides[0].index.sizes, was) : read(sides[1].index.sizes, is)

interface Telling {
  readonly query: DiffQuery
  readonly classes: Classes
  /** The classes that differ at the segment where the walk stands; the same list at each. */
  readonly turned: Turned[]
  /** For each segment on the way down whether the asker gives access there or above. */
  shared: boolean[]
  readonly segments: SegmentCount[]
  readonly turns: Map<number, number>
  readonly found: Found
  /** Of the places at which the walk starts. */
  readonly atStarts: Found
  hidden: number
  /** Of so many places. */
  done: number
  readonly total: number
  steps: number
}

/** Rows, until they are too many: then none. */
interface Found {
  rows: DiffRow[]
  count: number
}

interface Turned {
  readonly each: Class
  readonly before: ActionSet
  readonly after: ActionSet
}

const stepLength = 256

/** Answers whether everybody is the same there on both sides, and so in all that lies in it. */
function tellSegment(telling: Telling, below: Below, met: Met): boolean {
  const { query, classes, turned } = telling
  const depth = classes.undoing.length
  turned.length = 0
  let isAlike = findTurned(telling, met)
  // Drafts are few; below one, the states met still say that there was one.
  if (((met.statesBefore | met.statesAfter) & draft) !== 0) findTurnedAtDraft(telling, met)
  const web = query.isWeb ? webAt(query.sides, met) : 0
  if (query.isWeb || met.was === none || met.is === none) isAlike = false
  noteShared(telling, met)
  if (turned.length > 0 || web !== 0) tell(telling, { below, met, web })
  leave(classes, depth)
  telling.done += isAlike ? read(query.sides[1].index.sizes, met.top) : met.nodes
  telling.steps += 1
  if (telling.steps % stepLength === 0) query.onStep?.(Math.min(1, telling.done / telling.total))
  return isAlike
}

function findTurned({ classes, turned }: Telling, met: Met): boolean {
  const [was, is] = classes.sides
  const isSameCeiling = was.index.guestCeiling === is.index.guestCeiling
  let isAlike = isSameCeiling
  for (const each of classes.list) {
    if (each.count === 0 || (isSameCeiling && isAlikeIn(each, met))) continue
    isAlike = false
    const before = each.isTold[0] ? afterStates(capped(was.index, each.sums[0]), met.statesBefore) : noActions
    const after = each.isTold[1] ? afterStates(capped(is.index, each.sums[1]), met.statesAfter) : noActions
    if (before !== after) turned.push({ each, before, after })
  }
  return isAlike
}

/** The same on both sides without a look at what it comes to: that is so for most, nearly everywhere. */
const isAlikeIn = ({ sums, isTold }: Class, met: Met): boolean =>
  isSameSum(sums[0], sums[1]) &&
  isTold[0] === isTold[1] &&
  ((met.statesBefore ^ met.statesAfter) & (state.archived | state.binned)) === 0

/** Who made the draft that a segment begins at; `undefined` if it is none. */
type Makers = Sides<number | undefined>

/** At a draft, on one side or both: who made it stands apart, until the walk leaves the segment. */
function findTurnedAtDraft({ query, classes, turned }: Telling, met: Met): void {
  const makers: Makers = [draftAt(query.sides[0].index, met.was), draftAt(query.sides[1].index, met.is)]
  if (makers[0] === undefined && makers[1] === undefined) return
  turned.length = 0
  const places = makers.map(maker => (maker === undefined ? undefined : classes.placeOf.get(maker)))
  for (const place of new Set(places)) if (place !== undefined) apart(classes, [place])
  for (const [own, each] of classes.list.entries()) {
    if (each.count === 0) continue
    const answer = (side: Side) => {
      const held = each.isTold[side] ? capped(classes.sides[side].index, each.sums[side]) : noActions
      const place = places[side]
      const isMaker = place !== undefined && classes.classOf[place] === own
      const reads = (held & readingDrafts) !== 0 || (isMaker && (held & adding) !== 0)
      const states = side === 0 ? met.statesBefore : met.statesAfter
      return makers[side] !== undefined && !reads ? noActions : afterStates(held, states)
    }
    const [before, after] = [answer(0), answer(1)]
    if (before !== after) turned.push({ each, before, after })
  }
}

const { draft } = state
const readingDrafts = bitOf('change') | bitOf('share')
const adding = bitOf('add')
const seeing = bitOf('see')
const sharing = bitOf('share')

/** 1 where the web comes to see a place, -1 where it no longer does. */
function webAt(sides: Sides<EvaluationContext>, { was, is }: Met): number {
  const before = was !== none && isPublicIn(sides[0], was)
  const after = is !== none && isPublicIn(sides[1], is)
  return before === after ? 0 : after ? 1 : -1
}

/** Whether the asker gives access at a segment or above it, before the change: read at each only where something is hidden. */
function noteShared({ query: { sides, asker }, shared }: Telling, { was, depth }: Met): void {
  if (asker === none) return
  shared.length = depth
  shared.push(
    shared[depth - 1] === true ||
      (depth === 0 ? sharesAbove(sides[0], asker, was) : (checkIn(sides[0], asker, was) & sharing) !== 0),
  )
}

function sharesAbove(evaluation: EvaluationContext, asker: number, from: number): boolean {
  for (
    let node = from;
    node !== none;
    node = read(evaluation.index.tree, node * inTree.width + inTree.parent)
  )
    if ((checkIn(evaluation, asker, node) & sharing) !== 0) return true
  return false
}

/** Where it is, and what the web comes to see or no longer does: see `webAt`. */
interface ToldPlace {
  readonly below: Below
  readonly met: Met
  readonly web: number
}

/** Notes what differs at a segment, as far as the asker may know: where they share all of it, else their own. */
function tell(telling: Telling, place: ToldPlace): void {
  const { met } = place
  const scope = scopeAt(telling, met)
  if (scope === 'hidden') telling.hidden += met.nodes
  else if (scope === 'own') tellOwn(telling, place)
  else if (scope === 'all') tellAll(telling, place)
}

function tellAll(telling: Telling, { below, met, web }: ToldPlace): void {
  const counted = { gaining: 0, losing: 0, web }
  for (const turned of telling.turned) {
    const { each, before, after } = turned
    if ((after & ~before) !== 0) {
      each.gains += met.nodes
      counted.gaining += each.count
    }
    if ((before & ~after) !== 0) {
      each.losses += met.nodes
      counted.losing += each.count
    }
    noteTurn(telling, { turned, met, count: each.count })
    noteRows(telling, { turned, met, below })
  }
  if (web !== 0) {
    const [before, after] = web > 0 ? [noActions, onTheWeb] : [onTheWeb, noActions]
    addRow(telling, { below, node: met.top, nodes: met.nodes, person: webNumber, before, after }, met.depth)
  }
  noteSegment(telling, met, counted)
}

function tellOwn(telling: Telling, { below, met }: ToldPlace): void {
  const { classes, query } = telling
  const place = classes.placeOf.get(query.asker)
  if (place === undefined) return
  const own = classes.list[classes.classOf[place] as number]
  const turned = telling.turned.find(({ each }) => each === own)
  if (turned === undefined) return
  const { before, after } = turned
  const hasMore = (after & ~before) !== 0
  const hasLess = (before & ~after) !== 0
  if (hasMore) classes.gains[place] = (classes.gains[place] as number) + met.nodes
  if (hasLess) classes.losses[place] = (classes.losses[place] as number) + met.nodes
  noteTurn(telling, { turned, met, count: 1 })
  addRow(telling, { below, node: met.top, nodes: met.nodes, person: query.asker, before, after }, met.depth)
  noteSegment(telling, met, { gaining: hasMore ? 1 : 0, losing: hasLess ? 1 : 0, web: 0 })
}

const onTheWeb = seeing as ActionSet

type Scope = 'all' | 'own' | 'hidden' | 'none'

function scopeAt({ query: { sides, asker }, shared }: Telling, { was, is, depth }: Met): Scope {
  if (asker === none) return 'all'
  const held = checkIn(sides[0], asker, was) | checkIn(sides[1], asker, is)
  if ((held & seeing) === 0) return shared[depth] === true ? 'hidden' : 'none'
  if (is !== none && isRoot(sides[1].index, is)) return 'none'
  return (held & sharing) !== 0 ? 'all' : 'own'
}

function noteSegment(
  { segments }: Telling,
  { is, top: node, nodes }: Met,
  counted: Pick<SegmentCount, 'gaining' | 'losing' | 'web'>,
): void {
  const side: Side = is === none ? 0 : 1
  if (counted.gaining + counted.losing > 0 || counted.web !== 0)
    segments.push({ side, node, nodes, ...counted })
}

interface Noted {
  readonly turned: Turned
  readonly met: Met
}

function noteTurn(
  { turns }: Telling,
  { turned: { before, after }, met, count }: Noted & { readonly count: number },
): void {
  const turn = turnOf(before, after)
  turns.set(turn, (turns.get(turn) ?? 0) + count * met.nodes)
}

/** A row for each in a class: it costs a look at everybody, as long as rows are not too many. */
function noteRows(
  telling: Telling,
  { turned: { each, before, after }, met, below }: Noted & { readonly below: Below },
): void {
  const { classes, found, atStarts } = telling
  const isWanted = hasRoom(telling, found, each.count)
  const isWantedHere = met.depth === 0 && hasRoom(telling, atStarts, each.count)
  if (!isWanted && !isWantedHere) return
  const { top: node, nodes, depth } = met
  const own = classes.list.indexOf(each)
  for (let place = 0; place < classes.classOf.length; place += 1) {
    if (classes.classOf[place] !== own) continue
    const person = classes.people[place] as number
    addRow(telling, { below, node, nodes, person, before, after }, depth)
  }
}

/** Whether so many more rows are not too many; where they are, all are let go. */
function hasRoom({ query }: Telling, found: Found, count: number): boolean {
  if (found.count + count <= query.mostRows) return true
  found.count = Number.POSITIVE_INFINITY
  found.rows = []
  return false
}

function addRow(telling: Telling, row: DiffRow, depth: number): void {
  for (const found of depth === 0 ? [telling.found, telling.atStarts] : [telling.found])
    if (hasRoom(telling, found, 1)) {
      found.count += 1
      found.rows.push(row)
    }
}

const turnStep = 0x40000000

/** What it was and what it becomes, in one number. */
export const turnOf = (before: ActionSet, after: ActionSet): number => before * turnStep + after

export const turnFrom = (turn: number): Sides<ActionSet> => [
  Math.floor(turn / turnStep) as ActionSet,
  (turn % turnStep) as ActionSet,
]
