import { addEntry, createSum, type Sum } from './evaluate.ts'
import { createMarks, mark, type Marks, markMask } from './marks.ts'
import { somePerson } from './principals.ts'
import { inProfile, isToldOf, type EvaluationContext, profileBits, whomOf } from './evaluation-context.ts'
import { none, pageShift } from '../base/vector.ts'
import { anyone, everyone, inEntry, inSegment, principalKind, state } from '../index/layout.ts'
import { type FoundEntry, isLiveEntry, principalOf } from '../index/walk.ts'
import { type ActionSet, noActions } from '../levels/action.ts'

/**
 * People who have been given and taken alike so far, on the way down the tree, without a change and with it: they are
 * summed up once, however many they are. An entry that speaks of some of them divides them, and on the way up they
 * come together again. So everybody costs what those cost of whom entries speak by name or by team.
 */
export interface Classes {
  /** Without a change, and with it. A person has the same number on both. */
  readonly sides: Sides<EvaluationContext>
  readonly people: Int32Array
  /** By a person's number their place among these people: all else is by place, so few people cost little. */
  readonly placeOf: ReadonlyMap<number, number>
  /** In which class each is. */
  readonly classOf: Int32Array
  readonly list: Class[]
  /** What each gained and lost in classes that they left. */
  readonly gains: Int32Array
  readonly losses: Int32Array
  /** What is to be taken back on the way up, the last first. */
  readonly undoing: Undoing[]
  /** On each side, which principals may match any of these people. */
  readonly marks: Sides<Marks>
  /** On each side the places of those whom a principal matches, once it was asked. */
  readonly matching: Sides<Map<number, readonly number[]>>
}

/** A sum as it was, or people who left a class. */
type Undoing =
  | {
      readonly sum: Sum
      readonly given: ActionSet
      readonly cap: ActionSet
      readonly capUnlessSpared: ActionSet
    }
  | { readonly places: readonly number[]; readonly from: number; readonly to: number }

export type Sides<T> = readonly [T, T]
export type Side = 0 | 1

export interface Class {
  readonly sums: Sides<Sum>
  /** Whether those in it are told of at all. */
  readonly isTold: Sides<boolean>
  count: number
  /** At how many places so far each of those in it has more, and less. */
  gains: number
  losses: number
}

export function createClasses(sides: Sides<EvaluationContext>, people: Int32Array): Classes {
  const placeOf = new Map<number, number>()
  for (let place = 0; place < people.length; place += 1) placeOf.set(people[place] as number, place)
  const classes: Classes = {
    sides,
    people,
    placeOf,
    classOf: new Int32Array(people.length),
    list: [],
    gains: new Int32Array(people.length),
    losses: new Int32Array(people.length),
    undoing: [],
    marks: [marksFor(sides[0], people), marksFor(sides[1], people)],
    matching: [new Map(), new Map()],
  }
  const first = new Map<number, number>()
  for (let place = 0; place < people.length; place += 1) {
    const before = kindOn(sides[0], people[place] as number)
    const after = kindOn(sides[1], people[place] as number)
    const key = before * 4 + after
    const own = first.get(key) ?? classes.list.push(classFor([before, after])) - 1
    first.set(key, own)
    classes.classOf[place] = own
    ;(classes.list[own] as Class).count += 1
  }
  return classes
}

const kindOn = (evaluation: EvaluationContext, person: number): number =>
  person < evaluation.index.persons.length ? kindOf(evaluation, person) : 0

function marksFor(evaluation: EvaluationContext, people: Int32Array): Marks {
  const marks = createMarks()
  for (const person of people)
    if (person < evaluation.index.persons.length) mark(marks, whomOf(evaluation, person))
  return marks
}

const told = 1
const guest = 2
const kindOf = (evaluation: EvaluationContext, person: number): number =>
  (isToldOf(evaluation, person) ? told : 0) |
  ((profileBits(evaluation, person) & inProfile.guest) !== 0 ? guest : 0)

const classFor = ([before, after]: Sides<number>): Class => ({
  sums: [sumFor(before), sumFor(after)],
  isTold: [(before & told) !== 0, (after & told) !== 0],
  count: 0,
  gains: 0,
  losses: 0,
})

const sumFor = (kind: number): Sum => ({ ...createSum(), isGuest: (kind & guest) !== 0 })

/**
 * Goes down into a segment on one side: what breaks there ends, what is given and limited there counts. Most entries
 * speak of none of these people, and are only looked at.
 */
export function enter(classes: Classes, side: Side, segment: number): void {
  const { index, time } = classes.sides[side]
  const marks = classes.marks[side]
  const page = index.segments.pages[(segment * segmentWidth) >> shift] as Int32Array
  const at = (segment * segmentWidth) & inPage
  if (((page[at + stateAt] as number) & broken) !== 0) endGiven(classes, side)
  let rows = page
  let entry = at + entryAt
  for (let number = end; ;) {
    const principal = rows[entry] as number
    if (marks[(principal + 1) & mask] === 1 && principal !== end) {
      const found: FoundEntry = { page: rows, at: entry, segment, number }
      if (isLiveEntry(index, found, time)) apply(classes, side, found)
    }
    number = rows[entry + nextAt] as number
    if (number === end) return
    rows = index.entries.pages[(number * entryWidth) >> shift] as Int32Array
    entry = (number * entryWidth) & inPage
  }
}

// Their own copies: what is imported is looked up anew at each use.
const end = none
const { width: segmentWidth, state: stateAt, entry: entryAt } = inSegment
const { width: entryWidth, next: nextAt } = inEntry
const { broken } = state
const mask = markMask
const shift = pageShift
const inPage = (1 << shift) - 1

/** What was given above counts no more. */
function endGiven(classes: Classes, side: Side): void {
  for (const { sums } of classes.list) {
    remember(classes, sums[side])
    sums[side].given = noActions
  }
}

/** Goes up again to where so much was to be taken back. */
export function leave(classes: Classes, depth: number): void {
  while (classes.undoing.length > depth) {
    const last = classes.undoing.pop() as Undoing
    if ('places' in last) {
      move(classes, last.places, last)
      classes.list.pop()
    } else {
      last.sum.given = last.given
      last.sum.cap = last.cap
      last.sum.capUnlessSpared = last.capUnlessSpared
    }
  }
}

const remember = ({ undoing }: Classes, sum: Sum): void => {
  undoing.push({ sum, given: sum.given, cap: sum.cap, capUnlessSpared: sum.capUnlessSpared })
}

// Made for millions of entries: nothing is made here that has a name, since naming it takes longer than all else.
function apply(classes: Classes, side: Side, found: FoundEntry): void {
  const principal = principalOf(found)
  const meant =
    (principal & 3) === principalKind.all
      ? classes.list.filter(({ sums }) => isOfKind(sums[side], principal))
      : apart(classes, matchingIn(classes, side, principal))
  for (const { sums } of meant) {
    remember(classes, sums[side])
    addEntry(classes.sides[side], sums[side], found)
  }
}

const isOfKind = ({ isGuest }: Sum, principal: number): boolean =>
  principal === anyone || isGuest === (principal !== everyone)

const nobody: readonly number[] = []

function matchingIn({ sides, placeOf, matching }: Classes, side: Side, principal: number): readonly number[] {
  const known = matching[side].get(principal)
  if (known !== undefined) return known
  const places: number[] = []
  somePerson(sides[side], principal, person => {
    const place = placeOf.get(person)
    if (place !== undefined) places.push(place)
    return false
  })
  matching[side].set(principal, places.length === 0 ? nobody : places)
  return places
}

const noClasses: Class[] = []

/** The classes that hold just these people: those of which only some are meant are divided. */
export function apart(classes: Classes, places: readonly number[]): Class[] {
  const [first] = places
  if (first === undefined) return noClasses
  if (places.length === 1) return [apartFrom(classes, classes.classOf[first] as number, places)]
  const meant = new Map<number, number[]>()
  for (const place of places) {
    const own = classes.classOf[place] as number
    const others = meant.get(own)
    if (others === undefined) meant.set(own, [place])
    else others.push(place)
  }
  return [...meant].map(([own, those]) => apartFrom(classes, own, those))
}

function apartFrom(classes: Classes, own: number, places: readonly number[]): Class {
  const whole = classes.list[own] as Class
  if (places.length === whole.count) return whole
  const part: Class = {
    sums: [{ ...whole.sums[0] }, { ...whole.sums[1] }],
    isTold: whole.isTold,
    count: 0,
    gains: 0,
    losses: 0,
  }
  const next = classes.list.push(part) - 1
  move(classes, places, { from: own, to: next })
  classes.undoing.push({ places, from: next, to: own })
  return part
}

/** What each has gained so far is what was noted of them and what their class has: so one leaves with the difference. */
function move(
  { list, classOf, gains, losses }: Classes,
  places: readonly number[],
  { from, to }: { readonly from: number; readonly to: number },
): void {
  const [left, joined] = [list[from] as Class, list[to] as Class]
  for (const place of places) {
    classOf[place] = to
    gains[place] = (gains[place] as number) + left.gains - joined.gains
    losses[place] = (losses[place] as number) + left.losses - joined.losses
  }
  left.count -= places.length
  joined.count += places.length
}

/** Adds to what was noted of each what their class has, once all are together again. */
export function settle({ classOf, list, gains, losses }: Classes): void {
  for (let place = 0; place < classOf.length; place += 1) {
    const own = list[classOf[place] as number] as Class
    gains[place] = (gains[place] as number) + own.gains
    losses[place] = (losses[place] as number) + own.losses
  }
}
