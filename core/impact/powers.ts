import { type Power, powersAsIfActive } from '../access/powers.ts'
import { isActive, isComing } from '../access/subject.ts'
import { rowOf, rowsBy } from '../base/collection.ts'
import type { PersonId } from '../base/ids.ts'
import type { Instant, Span } from '../base/instant.ts'
import type { Transition } from '../changes/affected-scope.ts'
import { allPrivileges, type Privilege } from '../levels/privilege.ts'
import type { Scope } from '../people/person.ts'
import { isTurned } from '../changes/consequences.ts'
import type { Snapshot, State } from '../state/state.ts'

/** What one person may do in the workspace without a change set and with it; nothing of places. */
export interface PowerDifference {
  readonly person: PersonId
  /** The highest rank of their roles; 0 for none. */
  readonly rankBefore: number
  readonly rankAfter: number
  /** What they may do more and no longer, over whom. What is so over the whole workspace is not told again of a part. */
  readonly parts: readonly PowerPart[]
}

export interface PowerPart {
  readonly scope: Scope
  readonly gains: readonly Privilege[]
  readonly loses: readonly Privilege[]
}

/** Whose privileges can differ by some changes: who was given or lost a role, its holders, whose status changed. */
export function peopleWithPowers({ changes, before, after }: Transition): PersonId[] {
  const found = new Set<PersonId>()
  for (const change of changes) {
    if (change.table === 'holdings') found.add((change.after ?? change.before)?.person as PersonId)
    if (change.table === 'persons' && isOfStatus(change)) found.add(change.id)
    if (change.table === 'roles')
      for (const { state } of [before, after])
        for (const { person } of rowsBy(state.holdings, 'role', change.id)) found.add(person)
  }
  return [...found]
}

type PersonChange = Extract<Transition['changes'][number], { table: 'persons' }>

const isOfStatus = (change: PersonChange): boolean =>
  change.before === null ||
  change.after === null ||
  isTurned(change) ||
  change.before.status !== change.after.status ||
  change.before.from !== change.after.from ||
  change.before.until !== change.after.until ||
  change.before === change.after

/** The starts and ends by which these people's privileges change by themselves. */
export function powerInstants({ before, after }: Transition, people: readonly PersonId[]): Instant[] {
  const found = new Set<Instant>()
  for (const { state } of [before, after])
    for (const { from, until } of spansOf(state, people))
      for (const bound of [from, until]) if (bound !== null && bound > after.at) found.add(bound)
  return [...found]
}

const spansOf = (state: State, people: readonly PersonId[]): Span[] =>
  people.flatMap(person => [
    ...rowsBy(state.holdings, 'person', person),
    ...[rowOf(state.persons, person)].flatMap(each => each ?? []),
  ])

/** People not yet here count as if they were. */
export const powerDifferences = (
  people: readonly PersonId[],
  was: Snapshot,
  will: Snapshot,
): PowerDifference[] =>
  people.flatMap(person => {
    const before = powersHeld(was, person)
    const after = powersHeld(will, person)
    const parts = partsOf(before, after)
    const [rankBefore, rankAfter] = [highestOf(before), highestOf(after)]
    return parts.length === 0 && rankBefore === rankAfter ? [] : [{ person, rankBefore, rankAfter, parts }]
  })

function powersHeld(snapshot: Snapshot, id: PersonId): Power[] {
  const person = rowOf(snapshot.state.persons, id)
  const counts = person !== undefined && (isActive(snapshot, person) || isComing(snapshot, person))
  return counts ? powersAsIfActive(snapshot, id) : []
}

const highestOf = (powers: readonly Power[]): number => Math.max(0, ...powers.map(power => power.rank))

/** A scope as a key; the whole workspace is empty, so that it comes first. */
const keyOf = (scope: Scope): string =>
  scope.over === 'workspace' ? '' : scope.over === 'team' ? `team ${scope.team}` : 'guests'

function partsOf(before: readonly Power[], after: readonly Power[]): PowerPart[] {
  const [had, has] = [heldBy(before), heldBy(after)]
  const scopes = new Map([...before, ...after].map(power => [keyOf(power.scope), power.scope]))
  const inAll = (held: Held, privilege: Privilege) => held.get('')?.has(privilege) === true
  const inPart = (held: Held, key: string, privilege: Privilege) => held.get(key)?.has(privilege) === true
  return [...scopes.entries()]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([key, scope]) => {
      const more = (from: Held, to: Held) =>
        allPrivileges.filter(
          each =>
            inPart(to, key, each) &&
            !inPart(from, key, each) &&
            !inAll(from, each) &&
            (key === '' || !inAll(to, each)),
        )
      const [gains, loses] = [more(had, has), more(has, had)]
      return gains.length + loses.length === 0 ? [] : [{ scope, gains, loses }]
    })
}

type Held = ReadonlyMap<string, ReadonlySet<Privilege>>

function heldBy(powers: readonly Power[]): Held {
  const held = new Map<string, Set<Privilege>>()
  for (const { scope, privileges } of powers) {
    const kept = held.get(keyOf(scope)) ?? new Set()
    for (const each of privileges) kept.add(each)
    held.set(keyOf(scope), kept)
  }
  return held
}
