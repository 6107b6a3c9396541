import fc from 'fast-check'
import { expect, test } from 'vitest'
import { checkIn } from '#core/access/evaluate.ts'
import { createEvaluation } from '#core/access/evaluation-context.ts'
import { countsOf, answersFor } from '#core/access/what.ts'
import { applyEdits } from '#core/changes/judge.ts'
import { buildIndex } from '#core/index/build.ts'
import { type AccessIndex, vectorNames } from '#core/index/layout.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import type { State } from '#core/state/state.ts'
import { anyEdit, anyPolicy, anyStanding } from '#core/tests/edits.ts'
import { sourceOf } from '#core/tests/source.ts'
import { now } from '#core/tests/world.ts'
import { anyWorld } from '#core/tests/worlds.ts'
import { openIndex, packIndex } from './packed-index.ts'

/** What a thread is sent of a state is all that it needs, and no more than it lacks. */

const anyActs = fc.array(fc.oneof(anyEdit, anyPolicy, anyStanding), { minLength: 1, maxLength: 6 })

/** All that can be asked of an index in numbers. */
function answersOf(index: AccessIndex): unknown[] {
  const evaluation = createEvaluation(index, now)
  const people = [...Array(index.persons.length).keys()]
  const nodes = [...Array(index.nodes.length).keys()]
  return people.map(person => [
    nodes.map(node => checkIn(evaluation, person, node)),
    [...countsOf(answersFor(evaluation, person))].sort(),
  ])
}

/** As it goes to a thread: nothing of it is the sender's own any more, but for what both share. */
const sent = (index: AccessIndex, known: AccessIndex | undefined) => structuredClone(packIndex(index, known))

const pagesIn = ({ vectors }: ReturnType<typeof packIndex>): number =>
  vectorNames.reduce((sum, name) => sum + vectors[name].changed.length, 0)

test('each state that is sent after another answers there as here; those sent before stay as they were', () => {
  fc.assert(
    fc.property(anyWorld, anyActs, fc.boolean(), (first, acts, isBuilt) => {
      // One that was made whole lies in shared memory, as after a start; one that grew does not.
      let here = isBuilt ? buildIndex(sourceOf(first)) : first.index
      let state: State = { ...first, index: here }
      let there = openIndex(sent(here, undefined), undefined)
      const before: { readonly index: AccessIndex; readonly answers: unknown[] }[] = []
      for (const act of acts) {
        before.push({ index: there, answers: answersOf(here) })
        state = applyEdits(snapshotOf(state, now), act(state))?.state ?? state
        there = openIndex(sent(state.index, here), there)
        here = state.index
        expect(answersOf(there)).toEqual(answersOf(here))
      }
      for (const { index, answers } of before) expect(answersOf(index)).toEqual(answers)
    }),
    { numRuns: 300 },
  )
})

test('what the thread has already is not sent again', () => {
  fc.assert(
    fc.property(anyWorld, state => {
      const built = buildIndex(sourceOf(state))
      // What was made whole is read where it lies.
      expect(pagesIn(packIndex(built, undefined))).toBeLessThan(pagesIn(packIndex(state.index, undefined)))
      expect(pagesIn(packIndex(built, built))).toBe(0)
      expect(pagesIn(packIndex(state.index, state.index))).toBe(0)
    }),
    { numRuns: 50 },
  )
})
