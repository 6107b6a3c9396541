import type { Side } from '../access/classes.ts'
import { eachSegment, eachSegmentAbove, type Indexes, type Start } from '../access/side-by-side.ts'
import { none, read } from '../base/vector.ts'
import type { PersonId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import { numberOf } from '../base/numbering.ts'
import {
  type AccessIndex,
  anyone,
  everyone,
  flag,
  guests,
  inMembership,
  inPerson,
  inTimes,
  principalKind,
  timeAt,
  type Times,
} from '../index/layout.ts'
import { principalOf, someEntry, timesOf } from '../index/walk.ts'
import type { Snapshot } from '../state/state.ts'

/** Where and for whom something may begin or end. */
export interface Within {
  readonly starts: readonly Start[]
  readonly people: readonly PersonId[]
}

/**
 * Now and every later start and end, in either of two states, that can make a difference to some people below some
 * places: in between, nothing there changes by itself. Costs what the segments below and above cost.
 */
export const instantsOf = (both: Both, within: Within): Instant[] => instantsIn(eachSegment, both, within)

/** The same at these places themselves. Costs what the segments above cost. */
export const instantsAt = (both: Both, within: Within): Instant[] =>
  instantsIn(eachSegmentAbove, both, within)

interface Both {
  readonly before: Snapshot
  readonly after: Snapshot
}

function instantsIn(
  each: typeof eachSegment,
  { before, after }: Both,
  { starts, people }: Within,
): Instant[] {
  const indexes: Indexes = [before.state.index, after.state.index]
  const found = new Set<Instant>()
  const note = (times: Times) => {
    for (const bound of boundsOf(times)) if (bound > after.at) found.add(bound)
  }
  for (const index of indexes) for (const id of people) notePerson(index, id, note)
  const marks = indexes.map(index => marksEver(index, people))
  each(indexes, starts, (side: Side, segment: number) => {
    const index = indexes[side]
    someEntry(index, segment, entry => {
      if (marks[side]?.[principalOf(entry) + 1] === 1) note(timesOf(index, entry))
      return false
    })
  })
  return [after.at, ...[...found].sort((a, b) => a - b)]
}

function boundsOf({ flags, vector, address }: Times): Instant[] {
  if ((flags & flag.timed) === 0) return []
  return [
    ...((flags & flag.from) === 0 ? [] : [timeAt(vector, address + inTimes.from)]),
    ...((flags & flag.until) === 0 ? [] : [timeAt(vector, address + inTimes.until)]),
  ]
}

/** The times of somebody and of all their memberships. */
function notePerson(
  { persons, people, memberships }: AccessIndex,
  id: PersonId,
  note: (times: Times) => void,
): void {
  const person = numberOf(persons, id)
  if (person === undefined) return
  const base = person * inPerson.width
  note({ flags: read(people, base + inPerson.flags), vector: people, address: base + inPerson.times })
  for (let row = read(people, base + inPerson.first); row !== none;) {
    const at = row * inMembership.width
    const flags = read(memberships, at + inMembership.flags)
    note({ flags, vector: memberships, address: at + inMembership.times })
    row = read(memberships, at + inMembership.nextOfPerson)
  }
}

/** By principal + 1, whether it matches one of some people at any time. */
function marksEver(index: AccessIndex, ids: readonly PersonId[]): Uint8Array {
  const { persons, teams, people, memberships, forAll } = index
  const marks = new Uint8Array(4 * Math.max(persons.length, teams.length) + 2 + anyone)
  const mark = (principal: number) => (marks[principal + 1] = 1)
  for (const principal of [everyone, guests, anyone]) mark(principal)
  for (const team of forAll) mark(team * 4 + principalKind.team)
  for (const id of ids) {
    const person = numberOf(persons, id)
    if (person === undefined) continue
    mark(person * 4 + principalKind.person)
    let row = read(people, person * inPerson.width + inPerson.first)
    for (; row !== none; row = read(memberships, row * inMembership.width + inMembership.nextOfPerson)) {
      const team = read(memberships, row * inMembership.width + inMembership.team)
      mark(team * 4 + principalKind.team)
      mark(team * 4 + principalKind.leads)
    }
  }
  return marks
}
