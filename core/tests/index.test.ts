import fc from 'fast-check'
import { expect, test } from 'vitest'
import { childrenIn, headsBelow } from '../access/cut-segments.ts'
import { checkIn, seesWithin } from '../access/evaluate.ts'
import { createEvaluation, type EvaluationContext } from '../access/evaluation-context.ts'
import {
  answerAt,
  answersFor,
  countsOf,
  visibleAt,
  visibleCount,
  visibleIn,
  rootsIn,
} from '../access/what.ts'
import { forEachWithAccess } from '../access/who.ts'
import { allRows, rowOf } from '../base/collection.ts'
import { none, read } from '../base/vector.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { idOf, numberOf } from '../base/numbering.ts'
import { applyEdits } from '../changes/judge.ts'
import { type ActionSet, has, listActions, noActions } from '../levels/action.ts'
import { levelActions } from '../levels/level.ts'
import { snapshotOf } from '../state/snapshot.ts'
import type { Grant } from '../rules/access-entry.ts'
import {
  applyChanges,
  applyChangesLater,
  inverseOf,
  pathOf,
  type RecordChange,
  rootOf,
  type State,
} from '../state/state.ts'
import type { ContentNode } from '../tree/node.ts'
import { anyEdit, anyPolicy, anyStanding } from './edits.ts'
import { judged } from './judge.ts'
import { isSpecial, sourceOf } from './source.ts'
import { grant, node, now, person, world } from './world.ts'
import { anyWorld } from './worlds.ts'
import { buildIndex } from '../index/build.ts'
import { type AccessIndex, inLinks, inSegment, inTree } from '../index/layout.ts'

const anyActs = fc.array(
  fc.oneof({ weight: 4, arbitrary: anyEdit }, anyPolicy, { weight: 2, arbitrary: anyStanding }),
  {
    minLength: 1,
    maxLength: 5,
  },
)

/** A world, and what becomes of it by some edits, each state beside the others; undone in the end. */
const anyStates = fc.tuple(anyWorld, anyActs).map(([first, acts]) => {
  const states = [first]
  for (const act of acts) {
    const state = states.at(-1) as State
    const applied = applyEdits(snapshotOf(state, now), act(state))
    if (applied === undefined) continue
    states.push(applied.state, applyChanges(applied.state, inverseOf(applied.changes)), applied.state)
  }
  return states
})

const idsOf = (state: State) => ({
  people: allRows(state.persons).map(each => each.id),
  places: allRows(state.nodes).map(each => each.id),
})

/** All that an index answers, by ids. */
function answersOf(state: State, index: AccessIndex, time: number): string[] {
  const evaluation = createEvaluation(index, time)
  const { people, places } = idsOf(state)
  return people.flatMap(person =>
    places.map(place => {
      const actions = checkIn(
        evaluation,
        numberOf(index.persons, person) as number,
        numberOf(index.nodes, place) as number,
      )
      return `${person} ${place} ${listActions(actions).join(' ')}`
    }),
  )
}

test('an index that followed each change answers as one made anew, and as the judge; older ones stay as they were', () => {
  fc.assert(
    fc.property(anyStates, fc.constantFrom(now, now + 6, now + 15), (states, time) => {
      for (const state of states) {
        const { people, places } = idsOf(state)
        const defined = people.flatMap(person =>
          places.map(
            place => `${person} ${place} ${judged(snapshotOf(state, time), person, place).join(' ')}`,
          ),
        )
        expect(answersOf(state, state.index, time)).toEqual(defined)
        expect(answersOf(state, buildIndex(sourceOf(state)), time)).toEqual(defined)
      }
    }),
    { numRuns: 250 },
  )
})

test('it keeps what its head says: segments, sizes and counts', () => {
  fc.assert(
    fc.property(anyStates, states => {
      for (const state of states)
        for (const index of [state.index, buildIndex(sourceOf(state))]) expectWhole(state, index)
    }),
    { numRuns: 250 },
  )
})

function expectWhole(state: State, index: AccessIndex): void {
  const counts = new Map<number, number>()
  const below = new Map<NodeId, number>()
  for (const node of allRows(state.nodes)) {
    for (let each: NodeId | null = node.id; each !== null;) {
      below.set(each, (below.get(each) ?? 0) + 1)
      each = allRows(state.nodes).find(other => other.id === each)?.parent ?? null
    }
    const number = numberOf(index.nodes, node.id) as number
    const segment = read(index.segmentOf, number)
    counts.set(segment, (counts.get(segment) ?? 0) + 1)
    const isHead = read(index.segments, segment * inSegment.width + inSegment.head) === number
    const parent = read(index.tree, number * inTree.width + inTree.parent)
    expect(parent === none ? null : idOf(index.nodes, parent)).toBe(node.parent)
    const children = allRows(state.nodes).flatMap(({ id, parent }) => (parent === node.id ? [id] : []))
    expect(childrenIn(index, number).map(child => idOf(index.nodes, child))).toEqual(
      children.toSorted().toReversed(),
    )
    expect([node.id, isHead]).toEqual([node.id, node.parent === null || isHeading(state, node.id)])
    if (!isHead) expect(segment).toBe(read(index.segmentOf, parent))
    else if (parent !== none)
      expect(read(index.segments, segment * inSegment.width + inSegment.up)).toBe(
        read(index.segmentOf, parent),
      )
  }
  for (const [segment, count] of counts)
    expect(read(index.segmentLinks, segment * inLinks.width + inLinks.nodes)).toBe(count)
  for (const [id, count] of below) expect(read(index.sizes, numberOf(index.nodes, id) as number)).toBe(count)
  expectHeadsBelow(state, index)
}

/** All of them below each place, each after what it lies in. */
function expectHeadsBelow(state: State, index: AccessIndex): void {
  const nodes = allRows(state.nodes)
  const above = new Map(nodes.map(({ id }) => [id, pathOf(state, id).map(each => each.id)]))
  const heads = nodes.flatMap(({ id }) => (isHeading(state, id) ? [id] : [])).sort()
  for (const { id: top } of nodes) {
    const found = headsBelow(index, numberOf(index.nodes, top) as number).map(
      head => idOf(index.nodes, head) as NodeId,
    )
    expect(found.toSorted()).toEqual(heads.filter(id => id !== top && above.get(id)?.includes(top) === true))
    const isEarly = (id: NodeId, place: number) =>
      found.slice(place + 1).some(later => above.get(id)?.includes(later) === true)
    expect(found.filter(isEarly)).toEqual([])
  }
}

const isHeading = (state: State, id: NodeId): boolean =>
  [...allRows(state.grants), ...allRows(state.limits)].some(each => each.node === id) ||
  allRows(state.nodes).some(node => node.id === id && isSpecial(node))

test('who, what and the segments that somebody sees tell what check tells, one by one', () => {
  fc.assert(
    fc.property(anyStates, fc.constantFrom(now, now + 6), (states, time) => {
      const state = states.at(-1) as State
      const evaluation = createEvaluation(state.index, time)
      const { people, places } = idsOf(state)
      const numbers = places.map(place => numberOf(state.index.nodes, place) as number)
      for (const person of people.map(each => numberOf(state.index.persons, each) as number)) {
        const held = numbers.map(node => checkIn(evaluation, person, node))
        const answers = answersFor(evaluation, person)
        expect(numbers.map(node => answerAt(answers, node))).toEqual(held)
        const seen = held.filter(each => each !== noActions).sort()
        expect(
          [...countsOf(answers)].flatMap(([set, count]) => Array<number>(count).fill(set)).sort(),
        ).toEqual(seen)
        const rows = visibleIn(answers)
        const segments = Array.from({ length: visibleCount(rows) }, (_, place) => visibleAt(rows, place))
        expect(segments.flatMap(each => Array<number>(each.nodes).fill(each.actions)).sort()).toEqual(seen)
        for (const each of segments) expect(checkIn(evaluation, person, each.node)).toBe(each.actions)
        const isVisible = (id: NodeId | null) =>
          id !== null && id !== rootOf(state).id && held[places.indexOf(id)] !== noActions
        const roots = places.filter(
          id => isVisible(id) && !isVisible((rowOf(state.nodes, id) as ContentNode).parent),
        )
        const personId = idOf(state.index.persons, person) as PersonId
        for (const id of places)
          expect(seesWithin(snapshotOf(state, time), personId, id)).toBe(
            places.some(
              (child, at) => rowOf(state.nodes, child)?.parent === id && has(held[at] as ActionSet, 'see'),
            ),
          )
        expect([...rootsIn(answers)].map(node => idOf(state.index.nodes, node)).sort()).toEqual(roots.sort())
      }
      for (const node of numbers)
        expect(activeWho(evaluation, node)).toEqual(everybodyAt(evaluation, people, node))
    }),
    { numRuns: 250 },
  )
})

test('a draft that lies in the bin is counted for nobody, nor is what lies in it', () => {
  const reader = levelActions('Reader')
  const binned = { draft: true, binned: { by: 'owner' as PersonId, at: 0 } }
  const state = world(
    person('p'),
    node('draft', 'root', binned),
    node('inside', 'draft'),
    node('beside', 'root'),
    grant('draft', 'person:p', reader),
    grant('beside', 'person:p', reader),
  )
  const answers = answersFor(
    createEvaluation(state.index, now),
    numberOf(state.index.persons, 'p' as PersonId) as number,
  )
  expect([...countsOf(answers)]).toEqual([[reader, 1]])
})

test('where nothing of its own is left, no segment is left', () => {
  const reader = levelActions('Reader')
  const before = world(
    person('p'),
    node('above', 'root'),
    node('below', 'above'),
    grant('above', 'person:p', reader),
    grant('below', 'person:p', levelActions('Editor')),
  )
  const own = allRows(before.grants).find(each => each.node === 'below') as Grant
  const { index } = applyChanges(before, [{ table: 'grants', id: own.id, before: own, after: null }])
  const rows = visibleIn(
    answersFor(createEvaluation(index, now), numberOf(index.persons, 'p' as PersonId) as number),
  )
  expect(Array.from({ length: visibleCount(rows) }, (_, place) => visibleAt(rows, place))).toEqual([
    { node: numberOf(index.nodes, 'above' as NodeId), actions: reader, nodes: 2, within: none },
  ])
})

test('a draft hides itself from who only reads, and what lies in it has its own answer', () => {
  const reader = levelActions('Reader')
  const { index } = world(
    person('p'),
    person('q'),
    node('a', 'root'),
    node('draft', 'a', { draft: true }),
    node('inside', 'draft'),
    grant('a', 'person:p', reader),
    grant('inside', 'person:q', reader),
  )
  const answers = answersFor(createEvaluation(index, now), numberOf(index.persons, 'p' as PersonId) as number)
  const at = (id: string) => answerAt(answers, numberOf(index.nodes, id as NodeId) as number)
  expect([at('a'), at('draft'), at('inside')]).toEqual([reader, noActions, reader])
})

test('no state is made in which a place stands in itself', () => {
  const state = world(node('a', 'root'), node('b', 'a'), node('c', 'b'))
  const before = rowOf(state.nodes, 'a' as NodeId) as ContentNode
  const after = { ...before, parent: 'c' as NodeId }
  expect(() => applyChanges(state, [{ table: 'nodes', id: before.id, before, after }])).toThrow(
    'stand in itself',
  )
})

test('an index that follows later knows what stood there before all that waits', () => {
  const state = world(person('p'), node('a', 'root'), node('b', 'root'), node('c', 'root'), node('x', 'a'))
  const given = grant('a', 'person:p', levelActions('Reader')).row as Grant
  const x = rowOf(state.nodes, 'x' as NodeId) as ContentNode
  const [inB, inC] = ['b', 'c'].map(parent => ({ ...x, parent: parent as NodeId })) as [
    ContentNode,
    ContentNode,
  ]
  const steps: RecordChange[] = [
    { table: 'grants', id: given.id, before: null, after: given },
    { table: 'nodes', id: x.id, before: x, after: inB },
    { table: 'grants', id: given.id, before: given, after: null },
    { table: 'nodes', id: x.id, before: inB, after: inC },
  ]
  const later = steps.reduce((each, change) => applyChangesLater(each, [change]), state)
  expectWhole(later, later.index)
  expect(answersOf(later, later.index, now)).toEqual(answersOf(later, buildIndex(sourceOf(later)), now))
})

function activeWho(evaluation: EvaluationContext, node: number): number[] {
  const found: number[] = []
  forEachWithAccess(evaluation, node, (person, actions) => {
    if (checkIn(evaluation, person, node) === actions) found.push(person)
  })
  return found.sort((a, b) => a - b)
}

const everybodyAt = (evaluation: EvaluationContext, people: readonly PersonId[], node: number) =>
  people
    .map(id => numberOf(evaluation.index.persons, id) as number)
    .filter(person => checkIn(evaluation, person, node) !== noActions)
    .sort((a, b) => a - b)
