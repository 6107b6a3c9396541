import { type Vector, emptyVector, read } from '../base/vector.ts'
import type { LevelId, NodeId, PersonId, TeamId } from '../base/ids.ts'
import { emptyNumbering, type Free, type Numbering } from '../base/numbering.ts'
import { type ActionSet, noActions } from '../levels/action.ts'

/**
 * What questions of access read: the tree, who is in which team, and what is given and limited where, as whole
 * numbers in vectors. It says the same as the records that it is made from, and follows every change of them
 * (advance.ts). Immutable, and shared page by page with the one before, so that any number of them stand side by
 * side, in a worker too.
 *
 * A segment is a part of the tree that shares one answer: it begins at a node with entries or a state of its own,
 * its head, and goes down to where the next ones begin. Only its head can differ from the rest, where it is a
 * draft. Always holds: the root heads a segment; `segmentOf` of any other node is its parent's unless it heads one
 * itself; sizes count a node and all below it.
 *
 * What a check reads lies together, and apart from what only changes read: a check of a million nodes waits for
 * memory more than for anything else. So the first entry of a segment lies in its own row.
 */
export interface AccessIndex {
  readonly nodes: Numbering<NodeId>
  readonly persons: Numbering<PersonId>
  readonly teams: Numbering<TeamId>
  readonly tree: Vector
  readonly sizes: Vector
  readonly segmentOf: Vector
  readonly segments: Vector
  readonly segmentLinks: Vector
  /** When the first entry of a segment begins and ends. */
  readonly segmentTimes: Vector
  /** The second and later entries of segments. */
  readonly entries: Vector
  readonly entryTimes: Vector
  readonly people: Vector
  readonly memberships: Vector
  readonly groups: Vector
  readonly freeSegments: Spare
  readonly freeEntries: Spare
  readonly freeMemberships: Spare
  /** Levels of the workspace's own, by the number under which entries hold them. */
  readonly levels: readonly { readonly id: LevelId; readonly actions: ActionSet }[]
  /** Teams that hold all members, by number. */
  readonly forAll: readonly number[]
  /** Without what no guest has. */
  readonly guestCeiling: ActionSet
  readonly allowsPublishing: boolean
}

/** Rows of a vector: how many there ever were, and which are free. */
export interface Spare {
  readonly length: number
  readonly free: Free
}

const noRows: Spare = { length: 0, free: null }

export const emptyIndex: AccessIndex = {
  nodes: emptyNumbering(),
  persons: emptyNumbering(),
  teams: emptyNumbering(),
  tree: emptyVector,
  sizes: emptyVector,
  segmentOf: emptyVector,
  segments: emptyVector,
  segmentLinks: emptyVector,
  segmentTimes: emptyVector,
  entries: emptyVector,
  entryTimes: emptyVector,
  people: emptyVector,
  memberships: emptyVector,
  groups: emptyVector,
  freeSegments: noRows,
  freeEntries: noRows,
  freeMemberships: noRows,
  levels: [],
  forAll: [],
  guestCeiling: noActions,
  allowsPublishing: false,
}

/** What of an index are vectors: where almost all of it lies. */
export const vectorNames = [
  'tree',
  'sizes',
  'segmentOf',
  'segments',
  'segmentLinks',
  'segmentTimes',
  'entries',
  'entryTimes',
  'people',
  'memberships',
  'groups',
] as const satisfies readonly (keyof AccessIndex)[]

/** Where the fields of a row lie: an address is the row's number times the width, and the field. */
export const inTree = { width: 4, parent: 0, first: 1, next: 2, previous: 3 } as const
/** Of a segment, what only changes read: those right below it, and how many nodes it has. */
export const inLinks = { width: 4, first: 0, next: 1, previous: 2, nodes: 3 } as const

export const inSegment = {
  width: 8,
  /** The segment above, in which the head's parent lies. */
  up: 0,
  state: 1,
  /** The first entry, laid out as any other. */
  entry: 2,
  head: 6,
  /** Who made the head, a person's number: it counts where that is a draft. */
  maker: 7,
} as const

/** The principal of an entry is `none` in a segment that has no entry. */
export const inEntry = { width: 4, principal: 0, actions: 1, flags: 2, next: 3 } as const

/** The state of a segment's head: bits, and above them, for the home of a team, its number + 1. */
export const state = {
  broken: 1,
  draft: 2,
  archived: 4,
  binned: 8,
  published: 16,
  excluded: 32,
  home: 64,
  teamShift: 7,
} as const

/** A time takes two: whole pieces of 2^32 milliseconds, and the rest. */
export const inTimes = { width: 4, from: 0, until: 2 } as const
export const flag = { from: 1, until: 2, timed: 3, limit: 4, spares: 8, lead: 16 } as const

export const inPerson = { width: 8, first: 0, kind: 1, status: 2, flags: 3, times: 4 } as const
export const inMembership = {
  width: 16,
  person: 0,
  team: 1,
  nextOfPerson: 2,
  flags: 3,
  times: 4,
  nextOfTeam: 8,
} as const
export const inGroup = { width: 2, first: 0, state: 1 } as const
export const group = { archived: 1, welcomesGuests: 2, closedToWeb: 4 } as const

export const kinds = { member: 0, guest: 1 } as const
export const statuses = { invited: 0, active: 1, suspended: 2, removed: 3 } as const

/** A principal as a number: what it is in the low bits, whose above them. */
export const principalKind = { person: 0, team: 1, leads: 2, all: 3 } as const
export const everyone = 3
export const guests = 4 + 3
export const anyone = 8 + 3

/** When a row begins and ends, if its flags say that it does. */
export interface Times {
  readonly flags: number
  readonly vector: Vector
  readonly address: number
}

/** Whether a row that begins or ends counts at a time. One with no such flags always does. */
export function isWithin({ flags, vector, address }: Times, time: number): boolean {
  if ((flags & flag.from) !== 0 && timeAt(vector, address + inTimes.from) > time) return false
  return !isOver({ flags, vector, address }, time)
}

/** Whether a row has ended and will not count again. */
export const isOver = ({ flags, vector, address }: Times, time: number): boolean =>
  (flags & flag.until) !== 0 && timeAt(vector, address + inTimes.until) <= time

const high = 4_294_967_296
export const timeAt = (vector: Vector, address: number): number =>
  read(vector, address) * high + (read(vector, address + 1) >>> 0)
export const partsOfTime = (time: number): [number, number] => [Math.floor(time / high), (time % high) | 0]

/** The actions that an entry gives or allows: a level of the workspace's own is looked up. */
export const actionsNumbered = ({ levels }: AccessIndex, actions: number): ActionSet =>
  (actions >= 0 ? actions : (levels[-1 - actions]?.actions ?? noActions)) as ActionSet
