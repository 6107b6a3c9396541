import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Edit } from '../changes/edit.ts'
import { applyEdits } from '../changes/judge.ts'
import { type Action, allActions } from '../levels/action.ts'
import { snapshotOf } from '../state/snapshot.ts'
import type { Snapshot, State } from '../state/state.ts'
import { judged } from '../tests/judge.ts'
import { editor, reader, steward } from '../tests/judging.ts'
import { broken, grant, limit, member, node, now, person, team, world } from '../tests/world.ts'
import { anyWorld, nodeIds, personIds } from '../tests/worlds.ts'
import { candidateRemedies } from './candidates.ts'
import { type RemedyQuery, searchRemedies, type WhyNot } from './why-not.ts'

const asking = (person: string, node: string, action: Action): RemedyQuery => ({
  person: person as PersonId,
  node: node as NodeId,
  action,
})

/** All of the search, or as much as there is before it is over. */
function whyNot(snapshot: Snapshot, query: RemedyQuery, isOver = false): WhyNot {
  const search = searchRemedies(snapshot, query)
  for (let step = search.next(false); ; step = search.next(isOver)) if (step.done === true) return step.value
}

const kinds = (state: State, query: RemedyQuery) =>
  whyNot(snapshotOf(state, now), query).remedies.map(({ edits }) => edits.map(edit => edit.kind).join(' + '))

const steward1 = grant('a', 'person:owner', steward)

test('the one edit that gives least comes first', () => {
  const state = world(
    person('p'),
    team('t'),
    member('t', 'owner'),
    node('a', 'root'),
    node('b', 'a'),
    steward1,
    grant('a', 'team:t', editor),
  )
  expect(kinds(state, asking('p', 'b', 'copy'))).toEqual(['grant.add', 'member.add'])
  expect(kinds(state, asking('owner', 'b', 'copy'))).toEqual([])
})

test('what stands in the way together is taken away together', () => {
  const state = world(
    person('p', { status: 'suspended' }),
    node('a', 'root', { archived: true }),
    steward1,
    limit('a', 'person:p', reader),
  )
  expect(kinds(state, asking('p', 'a', 'change'))).toEqual([])
  const ways = kinds(
    world(person('p'), node('a', 'root', { archived: true }), steward1, limit('a', 'person:p', reader)),
    asking('p', 'a', 'change'),
  )
  expect(ways).toEqual(['grant.add + limit.change + node.state'])
})

test('a break is restored only where that helps, and a guest is not put where guests are not welcome', () => {
  const state = world(
    person('p'),
    person('g', { kind: 'guest' }),
    team('t'),
    node('a', 'root'),
    node('b', 'a', broken),
    steward1,
    grant('a', 'everyone', reader),
    grant('b', 'team:t', editor),
  )
  expect(kinds(state, asking('p', 'b', 'see'))).toEqual(['grant.add', 'member.add', 'node.restore'])
  expect(kinds(state, asking('g', 'b', 'see'))).toEqual(['grant.add'])
  expect(kinds(state, asking('g', 'b', 'share'))).toEqual([])
})

test('it stops when it is told to, and says so', () => {
  const state = world(person('p'), node('a', 'root'), steward1)
  const query = asking('p', 'a', 'see')
  expect(whyNot(snapshotOf(state, now), query, true)).toEqual({
    remedies: [],
    isComplete: false,
  })
})

test('every remedy helps, none holds an edit too many, and none with fewer edits was missed', () => {
  const sizes = new Map<number, number>()
  fc.assert(
    fc.property(
      anyWorld,
      fc.constantFrom(...personIds),
      fc.constantFrom(...nodeIds.slice(1)),
      fc.constantFrom(...allActions),
      (state, who, where, action) => {
        const snapshot = snapshotOf(state, now)
        const query = asking(who, where, action)
        const helps = (edits: readonly Edit[]) => may(snapshot, query, edits)
        const { remedies, isComplete } = whyNot(snapshot, query)
        if (helps([])) {
          expect(remedies).toEqual([])
          return
        }
        const working = upToThree(candidateRemedies(snapshot, query)).filter(helps)
        const minimal = working.filter(
          edits =>
            !working.some(other => other.length < edits.length && other.every(edit => edits.includes(edit))),
        )
        expect(isComplete).toBe(true)
        expect(new Set(remedies.map(each => JSON.stringify(each.edits)))).toEqual(
          new Set(minimal.map(edits => JSON.stringify(edits))),
        )
        const ranks = remedies.map(each => [each.edits.length, each.beyond])
        expect(ranks).toEqual([...ranks].sort(([a = 0, b = 0], [c = 0, d = 0]) => a - c || b - d))
        for (const { edits } of remedies) sizes.set(edits.length, (sizes.get(edits.length) ?? 0) + 1)
      },
    ),
    { numRuns: 500 },
  )
  expect([...sizes.keys()].sort()).toEqual([1, 2, 3])
})

const may = (snapshot: Snapshot, { person, node, action }: RemedyQuery, edits: readonly Edit[]) => {
  const applied = applyEdits(snapshot, edits)
  return applied !== undefined && judged(snapshotOf(applied.state, now), person, node).includes(action)
}

const upToThree = (edits: readonly Edit[]): (readonly Edit[])[] =>
  edits.flatMap((a, i) => [
    [a],
    ...edits.slice(i + 1).flatMap((b, j) => [[a, b], ...edits.slice(i + j + 2).map(c => [a, b, c])]),
  ])
