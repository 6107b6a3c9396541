import { none, read, write } from '../base/vector.ts'
import type { Span } from '../base/instant.ts'
import { numberOf } from '../base/numbering.ts'
import type { Gives, Grant, Limit } from '../rules/access-entry.ts'
import { partsOf, type Principal } from '../rules/principal.ts'
import {
  type AccessIndex,
  anyone,
  everyone,
  flag,
  guests,
  inEntry,
  inSegment,
  inTimes,
  principalKind,
  timeAt,
} from './layout.ts'
import { flagsOf, giveRowBack, type Making, reading, takeRow, writeTimes, writing } from './making.ts'
import { dissolve, segmentAt } from './tree.ts'

/** A grant or a limit as it lies in the index. Two that say the same are the same there. */
interface EntryContent extends Span {
  readonly principal: number
  readonly actions: number
  readonly flags: number
}

/** `none` for one who is not there: nobody matches it. */
export function principalNumber({ persons, teams }: AccessIndex, principal: Principal): number {
  const parts = partsOf(principal)
  switch (parts.kind) {
    case 'everyone':
      return everyone
    case 'guests':
      return guests
    case 'anyone':
      return anyone
    case 'person':
      return code(numberOf(persons, parts.person), principalKind.person)
    case 'team':
    case 'leads':
      return code(numberOf(teams, parts.team), principalKind[parts.kind])
  }
}

const code = (number: number | undefined, kind: number): number =>
  number === undefined ? none : number * 4 + kind

/** What a row says, besides where and of whom. */
export type EntryRow =
  Pick<Grant, 'gives' | 'from' | 'until'> | Pick<Limit, 'allows' | 'sparesStewards' | 'from' | 'until'>

/** `principal` is the number of whom the row speaks of. */
function contentOf(index: AccessIndex, row: EntryRow, principal: number): EntryContent {
  const { from, until } = row
  const isGrant = 'gives' in row
  return {
    principal,
    actions: isGrant ? numberGiven(index, row.gives) : row.allows,
    flags: isGrant ? flagsOf(row) : flagsOf(row) | flag.limit | (row.sparesStewards ? flag.spares : 0),
    from,
    until,
  }
}

const numberGiven = ({ levels }: AccessIndex, gives: Gives): number =>
  typeof gives === 'number' ? gives : -1 - levels.findIndex(level => level.id === gives)

/** Where an entry lies: in the row of its segment, or in one of its own. */
interface Slot {
  readonly vector: 'segments' | 'entries'
  readonly base: number
  readonly times: 'segmentTimes' | 'entryTimes'
  readonly timesAt: number
}

const firstOf = (segment: number): Slot => ({
  vector: 'segments',
  base: segment * inSegment.width + inSegment.entry,
  times: 'segmentTimes',
  timesAt: segment * inTimes.width,
})

const slotOf = (entry: number): Slot => ({
  vector: 'entries',
  base: entry * inEntry.width,
  times: 'entryTimes',
  timesAt: entry * inTimes.width,
})

const fieldOf = (making: Making, { vector, base }: Slot, field: number): number =>
  read(reading(making, vector), base + field)

function nextOf(making: Making, slot: Slot): Slot | undefined {
  const next = fieldOf(making, slot, inEntry.next)
  return next === none ? undefined : slotOf(next)
}

/** Nothing if its node is not there, or nobody is whom it speaks of. */
export function addEntry(making: Making, row: Grant | Limit): void {
  const node = numberOf(making.index.nodes, row.node)
  const principal = principalNumber(making.index, row.principal)
  if (node !== undefined && principal !== none)
    putEntry(making, row, { principal, segment: segmentAt(making, node) })
}

/** The same where it is known in numbers. */
export function putEntry(
  making: Making,
  row: EntryRow,
  { principal, segment }: { readonly principal: number; readonly segment: number },
): void {
  const content = contentOf(making.index, row, principal)
  const first = firstOf(segment)
  if (fieldOf(making, first, inEntry.principal) === none) {
    lay(making, first, content)
    write(writing(making, first.vector), first.base + inEntry.next, none)
    return
  }
  const entry = takeRow(making, 'freeEntries')
  const slot = slotOf(entry)
  lay(making, slot, content)
  write(writing(making, slot.vector), slot.base + inEntry.next, fieldOf(making, first, inEntry.next))
  write(writing(making, first.vector), first.base + inEntry.next, entry)
}

/** Writes what an entry says; not which one comes next. */
function lay(making: Making, { vector, base, times, timesAt }: Slot, content: EntryContent): void {
  const to = writing(making, vector)
  write(to, base + inEntry.principal, content.principal)
  write(to, base + inEntry.actions, content.actions)
  write(to, base + inEntry.flags, content.flags)
  if ((content.flags & flag.timed) !== 0) writeTimes(writing(making, times), timesAt, content)
}

/** Nothing if it is not there: what lies at a node goes with it. */
export function removeEntry(making: Making, row: Grant | Limit): void {
  const node = numberOf(making.index.nodes, row.node)
  const principal = principalNumber(making.index, row.principal)
  if (node === undefined || principal === none) return
  const content = contentOf(making.index, row, principal)
  const segment = segmentAt(making, node)
  let before: Slot | undefined
  for (let slot: Slot | undefined = firstOf(segment); slot !== undefined; slot = nextOf(making, slot)) {
    if (holds(making, slot, content)) {
      if (before === undefined) removeFirst(making, slot)
      else unlink(making, before, slot)
      break
    }
    before = slot
  }
  dissolveIfPlain(making, segment)
}

/** The second one, if there is one, takes its place. */
function removeFirst(making: Making, first: Slot): void {
  const second = nextOf(making, first)
  if (second === undefined) {
    write(writing(making, first.vector), first.base + inEntry.principal, none)
    return
  }
  const next = fieldOf(making, second, inEntry.next)
  lay(making, first, contentIn(making, second))
  write(writing(making, first.vector), first.base + inEntry.next, next)
  giveRowBack(making, 'freeEntries', second.base / inEntry.width)
}

function unlink(making: Making, before: Slot, slot: Slot): void {
  write(writing(making, before.vector), before.base + inEntry.next, fieldOf(making, slot, inEntry.next))
  giveRowBack(making, 'freeEntries', slot.base / inEntry.width)
}

const holds = (making: Making, slot: Slot, content: EntryContent): boolean => {
  const there = contentIn(making, slot)
  return (Object.keys(there) as (keyof EntryContent)[]).every(key => there[key] === content[key])
}

function contentIn(making: Making, slot: Slot): EntryContent {
  const flags = fieldOf(making, slot, inEntry.flags)
  const time = (bit: number, field: number) =>
    (flags & bit) === 0 ? null : timeAt(reading(making, slot.times), slot.timesAt + field)
  return {
    principal: fieldOf(making, slot, inEntry.principal),
    actions: fieldOf(making, slot, inEntry.actions),
    flags,
    from: time(flag.from, inTimes.from),
    until: time(flag.until, inTimes.until),
  }
}

/** A segment with no entries and no state of its own ends; the root's never does. */
export function dissolveIfPlain(making: Making, segment: number): void {
  const segments = reading(making, 'segments')
  const base = segment * inSegment.width
  const isPlain =
    read(segments, base + inSegment.entry + inEntry.principal) === none &&
    read(segments, base + inSegment.state) === 0 &&
    read(segments, base + inSegment.up) !== none
  if (isPlain) dissolve(making, segment)
}

/** All that lies at a node that goes. */
export function dropEntries(making: Making, segment: number): void {
  for (let slot = nextOf(making, firstOf(segment)); slot !== undefined; slot = nextOf(making, slot))
    giveRowBack(making, 'freeEntries', slot.base / inEntry.width)
}
