import { none, read } from '../base/vector.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import { numberOf } from '../base/numbering.ts'
import {
  type AccessIndex,
  anyone,
  everyone,
  flag,
  group,
  guests,
  inGroup,
  inMembership,
  inPerson,
  isOver,
  isWithin,
  kinds,
  principalKind,
  statuses,
  type Times,
} from '../index/layout.ts'
import type { Snapshot } from '../state/state.ts'

/**
 * An index read at one time: what questions in numbers are put to.
 *
 * As whom entries see a person is worked out once: a row of eight numbers, bits and then the teams, and leads of
 * teams, that match. Few have more than seven; theirs lie apart.
 */
export interface EvaluationContext {
  readonly index: AccessIndex
  readonly time: Instant
  readonly profiles: (Int32Array | undefined)[]
  readonly longer: (Int32Array | undefined)[]
  /** Room to work in, for who needs a number for each segment: none waits in the middle while another works. */
  readonly room: { numbers: Int32Array }
}

/** The first number of a profile: how many teams follow, and bits. */
export const inProfile = {
  width: 8,
  count: 0xff,
  guest: 0x100,
  active: 0x200,
  coming: 0x400,
  made: 0x800,
} as const
const pageShift = 8
/** A copy of its own: what is imported is looked up anew at each use. */
const anybody = anyone

const known = new WeakMap<Snapshot, EvaluationContext>()

export function evaluationOf(snapshot: Snapshot): EvaluationContext {
  const kept = known.get(snapshot)
  if (kept !== undefined) return kept
  const evaluation = createEvaluation(snapshot.state.index, snapshot.at)
  known.set(snapshot, evaluation)
  return evaluation
}

export const createEvaluation = (
  index: AccessIndex,
  time: Instant,
  room: EvaluationContext['room'] = { numbers: new Int32Array() },
): EvaluationContext => ({ index, time, profiles: [], longer: [], room })

/** Of another index: where it says the same of all people and teams, what was worked out of them stands. */
export function createEvaluationBeside(
  { index: other, time: otherTime, profiles, longer, room }: EvaluationContext,
  index: AccessIndex,
  time = otherTime,
): EvaluationContext {
  const isSame =
    index.people === other.people &&
    index.memberships === other.memberships &&
    index.groups === other.groups &&
    index.forAll === other.forAll
  return isSame ? { index, time, profiles, longer, room } : createEvaluation(index, time, room)
}

/** Of two moments between which nothing begins or ends: where the same is said of people, it is worked out once. */
export function shareEvaluation(was: Snapshot, is: Snapshot): void {
  if (!known.has(is)) known.set(is, createEvaluationBeside(evaluationOf(was), is.state.index, is.at))
}

/** The evaluation contexts of a snapshot and of the same instant in another state. */
export function evaluationsOf(was: Snapshot, is: Snapshot): readonly [EvaluationContext, EvaluationContext] {
  if (was.at === is.at) shareEvaluation(was, is)
  return [evaluationOf(was), evaluationOf(is)]
}

/** `none` if there is no such person. */
export const personById = ({ index }: EvaluationContext, id: PersonId): number =>
  numberOf(index.persons, id) ?? none

/** `none` if there is no such node. */
export const nodeById = ({ index }: EvaluationContext, id: NodeId): number =>
  numberOf(index.nodes, id) ?? none

/** The numbers in which a person's profile lies, from `profileBase` on. */
export function profileOf(evaluation: EvaluationContext, person: number): Int32Array {
  const page = evaluation.profiles[person >> pageShift]
  return page !== undefined && page[profileBase(person)] !== 0 ? page : createProfile(evaluation, person)
}

export const profileBase = (person: number): number => (person & ((1 << pageShift) - 1)) * inProfile.width

/** A person as entries see it: the principals that match. */
export interface Whom {
  self: number
  /** Everyone, or the guests. */
  kin: number
  /** Where the teams lie, and leads of teams. */
  list: Int32Array
  first: number
  behind: number
}

export const createWhom = (): Whom => ({ self: none, kin: none, list: noTeams, first: 0, behind: 0 })
const noTeams = new Int32Array()

/** Whoever asks very often fills the same object each time. */
export function whomOf(evaluation: EvaluationContext, person: number, whom: Whom = createWhom()): Whom {
  const profile = profileOf(evaluation, person)
  const base = profileBase(person)
  const bits = profile[base] as number
  const count = bits & inProfile.count
  const isLong = count >= inProfile.width
  whom.self = person * 4
  whom.kin = (bits & inProfile.guest) === 0 ? everyone : guests
  whom.list = isLong ? (evaluation.longer[person] as Int32Array) : profile
  whom.first = isLong ? 0 : base + 1
  whom.behind = isLong ? whom.list.length : whom.first + count
  return whom
}

export function isWhom({ self, kin, list, first, behind }: Whom, principal: number): boolean {
  if (principal === self || principal === kin || principal === anybody) return true
  if ((principal & 3) === 0) return false
  for (let each = first; each < behind; each += 1) if (list[each] === principal) return true
  return false
}

/** What of a person's profile are bits. */
export const profileBits = (evaluation: EvaluationContext, person: number): number =>
  profileOf(evaluation, person)[profileBase(person)] as number

/** Has access at all; whoever does not is answered as if it had, where that is asked. */
export const isActiveIn = (evaluation: EvaluationContext, person: number): boolean =>
  (profileBits(evaluation, person) & inProfile.active) !== 0

/** Active, or invited, or here from a later day on: told of as if it were here already, and marked. */
export const isToldOf = (evaluation: EvaluationContext, person: number): boolean =>
  (profileBits(evaluation, person) & (inProfile.active | inProfile.coming)) !== 0

function createProfile(evaluation: EvaluationContext, person: number): Int32Array {
  const { index } = evaluation
  const isGuest = read(index.people, person * inPerson.width + inPerson.kind) === kinds.guest
  const teams = teamsOf(evaluation, person)
  if (!isGuest) for (const team of index.forAll) teams.push(team * 4 + principalKind.team)
  const page = (evaluation.profiles[person >> pageShift] ??= new Int32Array(inProfile.width << pageShift))
  const base = profileBase(person)
  const isShort = teams.length < inProfile.width
  if (isShort) page.set(teams, base + 1)
  else evaluation.longer[person] = Int32Array.from(teams)
  page[base] =
    (isShort ? teams.length : inProfile.count) |
    (isGuest ? inProfile.guest : 0) |
    presenceOf(evaluation, person) |
    inProfile.made
  return page
}

function presenceOf({ index: { people }, time }: EvaluationContext, person: number): number {
  const base = person * inPerson.width
  const status = read(people, base + inPerson.status)
  const times: Times = {
    flags: read(people, base + inPerson.flags),
    vector: people,
    address: base + inPerson.times,
  }
  if (status === statuses.active && isWithin(times, time)) return inProfile.active
  const mayCome = status === statuses.invited || status === statuses.active
  return mayCome && !isOver(times, time) ? inProfile.coming : 0
}

/** As principals, the teams that a person is in by a membership that counts: a guest's sleeps where guests are not welcome. */
function teamsOf({ index, time }: EvaluationContext, person: number): number[] {
  const teams: number[] = []
  const { people, memberships } = index
  const isGuest = read(people, person * inPerson.width + inPerson.kind) === kinds.guest
  let row = read(people, person * inPerson.width + inPerson.first)
  for (; row !== none; row = read(memberships, row * inMembership.width + inMembership.nextOfPerson)) {
    const base = row * inMembership.width
    const team = read(memberships, base + inMembership.team)
    const flags = read(memberships, base + inMembership.flags)
    if (!isWithin({ flags, vector: memberships, address: base + inMembership.times }, time)) continue
    if (isGuest && !welcomesGuests(index, team)) continue
    teams.push(team * 4 + principalKind.team)
    if (!isGuest && (flags & flag.lead) !== 0) teams.push(team * 4 + principalKind.leads)
  }
  return teams
}

export const welcomesGuests = ({ groups }: AccessIndex, team: number): boolean =>
  (read(groups, team * inGroup.width + inGroup.state) & group.welcomesGuests) !== 0
