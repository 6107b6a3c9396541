import fc from 'fast-check'
import { afterAll, expect, test } from 'vitest'
import { check } from '#core/access/evaluate.ts'
import { createEvaluation } from '#core/access/evaluation-context.ts'
import { answersFor } from '#core/access/what.ts'
import { applyEdits } from '#core/changes/judge.ts'
import { eachRow, rowOf } from '#core/base/collection.ts'
import type { ColumnId, NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import { has } from '#core/levels/action.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { pathOf, rootOf, type State } from '#core/state/state.ts'
import { now } from '#core/tests/world.ts'
import { anyWorld } from '#core/tests/worlds.ts'
import { ask, createThread, endThread } from './asking.ts'
import { addDocuments, documentsSeen, fewDocuments, noDocumentNodes, visibleOf } from './visible-documents.ts'

/** Which documents somebody sees, by number, is what the core says of each place. */

const thread = createThread()
afterAll(() => endThread(thread))
const workspace = 'coast' as WorkspaceId
const seesColumn = () => false

const idsOf = (state: State): NodeId[] =>
  [...eachRow(state.nodes)].map(({ id }) => id).filter(id => id !== rootOf(state).id)

/** Some documents are of a restricted column: which of these somebody sees is said beside. */
const columnOf = (number: number): ColumnId | undefined =>
  number % 5 === 0 ? ('fees' as ColumnId) : number % 7 === 0 ? ('contact' as ColumnId) : undefined

/** Two documents of each place, numbered from 1 on, and some of a place that is not known yet. */
function documentsOf(state: State) {
  const ids = idsOf(state)
  const nodes = [...ids, 'unheard' as NodeId, ...ids.toReversed()]
  const kept = noDocumentNodes(state)
  const half = Math.floor(nodes.length / 2)
  for (const [from, to] of [
    [0, half],
    [half, nodes.length],
  ] as const) {
    const numbers = Int32Array.from({ length: to - from }, (_, at) => from + at + 1)
    const columns = [...numbers].flatMap(number => {
      const column = columnOf(number)
      return column === undefined ? [] : [[number, column] as const]
    })
    addDocuments(kept, state, { numbers, nodes: nodes.slice(from, to), columns: new Map(columns) })
  }
  return { kept, nodes }
}

test('what is seen of documents is what is seen of their places, wherever they are looked for', async () => {
  await fc.assert(
    fc.asyncProperty(anyWorld, fc.nat(), fc.subarray(['fees', 'contact']), async (state, picked, columns) => {
      const snapshot = snapshotOf(state, now)
      const { kept, nodes } = documentsOf(state)
      const ids = idsOf(state)
      const seesColumn = (column: ColumnId) => columns.includes(column)
      const isOfSeen = (number: number) => {
        const column = columnOf(number)
        return column === undefined || seesColumn(column)
      }
      const places = [null, ids[picked % Math.max(1, ids.length)] ?? null]
      for (const { id: person } of eachRow(state.persons))
        for (const within of places) {
          const isIn = (id: NodeId) => within === null || pathOf(state, id).some(each => each.id === within)
          const wanted = nodes.flatMap((id, at) =>
            id !== 'unheard' && has(check(snapshot, person, id), 'see') && isIn(id) && isOfSeen(at + 1)
              ? [at + 1]
              : [],
          )
          const seen = await documentsSeen(thread, {
            workspace,
            snapshot,
            person,
            kept,
            within,
            seesColumn,
          })
          if (seen === undefined) throw new Error('somebody is there, and sees what they see')
          expect(
            visibleOf(
              seen,
              Array.from({ length: nodes.length + 9 }, (_, at) => at),
              Infinity,
            ),
          ).toEqual(wanted)
          expect(await fewDocuments(seen, wanted.length)).toEqual(wanted)
          if (wanted.length > 0) expect(await fewDocuments(seen, wanted.length - 1)).toBeUndefined()
          const all = nodes.map((_, at) => at + 1)
          expect(seen.seesAll).toBe(
            all.every(isOfSeen) && ids.every(id => has(check(snapshot, person, id), 'see')),
          )
        }
    }),
    { numRuns: 60 },
  )
})

test('who is not there sees nothing', async () => {
  const state = fc.sample(anyWorld, { numRuns: 1, seed: 5 })[0] as State
  const { kept } = documentsOf(state)
  const person = 'nobody' as PersonId
  const nobody = { workspace, snapshot: snapshotOf(state, now), person, kept, within: null, seesColumn }
  expect(await documentsSeen(thread, nobody)).toBeUndefined()
})

test('a place that is heard of after its words has its documents then', async () => {
  const before = fc.sample(anyWorld, { numRuns: 1, seed: 5 })[0] as State
  const later = 'later' as NodeId
  const kept = noDocumentNodes(before)
  addDocuments(kept, before, { numbers: Int32Array.of(1), nodes: [later], columns: new Map() })
  const snapshot = snapshotOf(before, now)
  const pairs = [...eachRow(before.persons)].flatMap(({ id: person }) =>
    idsOf(before).map(parent => ({ person, parent })),
  )
  const pair = pairs.find(
    each =>
      rowOf(before.nodes, each.parent)?.kind === 'folder' &&
      has(check(snapshot, each.person, each.parent), 'see'),
  )
  if (pair === undefined) throw new Error('nobody sees a folder')
  const { person, parent } = pair
  const create = { kind: 'node.create', node: later, parent, as: 'folder', name: 'Later' } as const
  const after = applyEdits(snapshot, [create])?.state as State
  const seenIn = async (state: State) => {
    const seen = await documentsSeen(thread, {
      workspace,
      snapshot: snapshotOf(state, now),
      person,
      kept,
      within: null,
      seesColumn,
    })
    return seen === undefined ? undefined : visibleOf(seen, [1], 9)
  }
  expect(await seenIn(before)).toEqual([])
  addDocuments(kept, after, { numbers: new Int32Array(), nodes: [], columns: new Map() })
  expect(await seenIn(after)).toEqual([1])
})

test('the thread answers what is answered here', async () => {
  const state = fc.sample(anyWorld, { numRuns: 1, seed: 7 })[0] as State
  const { index } = state
  for (let person = 0; person < index.persons.length; person += 1) {
    const question = { kind: 'answers', time: now, person } as const
    const there = await ask<'answers'>(thread, { workspace, question, indexes: [index, index] })
    expect([...there]).toEqual([...answersFor(createEvaluation(index, now), person).bySegment])
  }
})
