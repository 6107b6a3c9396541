import fc from 'fast-check'
import { expect, test } from 'vitest'
import { allRows } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Edit } from '../changes/edit.ts'
import { proposedOf } from '../changes/judge.ts'
import { actions, listActions } from '../levels/action.ts'
import { theWeb } from '../access/public.ts'
import { subjectOf } from '../access/subject.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { applyChanges, type State } from '../state/state.ts'
import { giving, judging, publishing, reader, setting, steward } from '../tests/judging.ts'
import { judged, judgedPublic } from '../tests/judge.ts'
import { grant, node, now, person, world } from '../tests/world.ts'
import { anyEdit, anyPolicy, anyStanding } from '../tests/edits.ts'
import { anyWorld, nodeIds, personIds } from '../tests/worlds.ts'
import { impact } from './impact.ts'
import { newsOf } from './news.ts'

const later = [now, now + 5, now + 10, now + 15, now + 20, now + 30]

test('tells exactly what differs, now and from each later instant on', () => {
  const anyDraft = fc.oneof(
    { weight: 3, arbitrary: anyEdit },
    { weight: 3, arbitrary: anyPolicy },
    anyStanding,
  )
  let allowed = 0
  let onTheWeb = 0
  fc.assert(
    fc.property(anyWorld, fc.constantFrom(...nodeIds), anyDraft, (base, at, draft) => {
      const { table, row } = grant(at, 'person:owner', steward, { id: 'steward' as never })
      const state = applyChanges(base, [{ table, id: row.id, before: null, after: row } as never])
      const edits = draft(state)
      const result = judging(state, 'owner', ...edits)
      if (!result.ok) return
      allowed += 1
      const changeSet = { author: 'owner' as PersonId, reason: '', edits }
      const transition = proposedOf(snapshotOf(state, now), changeSet, result.value)
      const found = impact(transition)
      const everywhere = new Set(
        [state, result.value.state].flatMap(of => allRows(of.nodes).map(each => each.id)),
      )
      for (const time of later) {
        const inForce = found.findLast(each => each.at <= time)?.differences ?? []
        for (const id of personIds as unknown as PersonId[]) {
          if (!isHere(state, id, time)) continue
          for (const where of everywhere) {
            const before = judged(snapshotOf(state, time), id, where)
            const after = judged(snapshotOf(result.value.state, time), id, where)
            const one = inForce.find(each => each.person === id && each.node === where)
            expect([listActions(one?.before ?? actions()), listActions(one?.after ?? actions())]).toEqual(
              String(before) === String(after) ? [[], []] : [before, after],
            )
          }
        }
        for (const where of nodeIds as unknown as NodeId[]) {
          const one = inForce.find(each => each.person === theWeb && each.node === where)
          const sees = (of: State) => judgedPublic(snapshotOf(of, time), where)
          expect([where, one !== undefined]).toEqual([where, sees(state) !== sees(result.value.state)])
          onTheWeb += one === undefined ? 0 : 1
        }
      }
    }),
    { numRuns: 1200 },
  )
  expect([allowed > 20, onTheWeb > 20]).toEqual([true, true])
})

/** Those not here are told of as if they were, which the judge does not do. */
const isHere = (state: State, id: PersonId, at: number) =>
  subjectOf(snapshotOf(state, at), id)?.isActive === true

test('an end to come is told with the day from which it makes a difference', () => {
  const state = world(
    person('p'),
    node('a', 'root'),
    grant('a', 'person:owner', steward),
    grant('a', 'person:p', reader, { until: now + 10 }),
  )
  const edits = [giving('a', 'person:p', reader, { until: now + 20 })]
  const result = judging(state, 'owner', ...edits)
  if (!result.ok) throw new Error('must be allowed')
  const found = impact(
    proposedOf(snapshotOf(state, now), { author: 'owner' as PersonId, reason: '', edits }, result.value),
  )
  expect(found.map(each => [each.at - now, each.differences.length])).toEqual([
    [0, 0],
    [10, 1],
    [20, 0],
  ])
})

test('that somebody goes whom a change concerned is no news of it; its own days and whom it meets later are', () => {
  const state = world(
    person('p', { until: now + 5 }),
    person('q'),
    person('r', { from: now + 10 }),
    node('a', 'root'),
    node('b', 'a'),
    grant('a', 'person:owner', steward),
    grant('a', 'person:p', reader),
    grant('a', 'person:q', reader, { until: now + 7 }),
    grant('a', 'person:r', reader, { from: now + 12 }),
  )
  const newsAt = (...edits: Edit[]) => {
    const result = judging(state, 'owner', ...edits)
    if (!result.ok) throw new Error('must be allowed')
    const transition = proposedOf(
      snapshotOf(state, now),
      { author: 'owner' as PersonId, reason: '', edits },
      result.value,
    )
    const news = newsOf(transition, impact(transition))
    return news.map(each => [each.at - now, [...new Set(each.differences.map(row => row.person))].sort()])
  }
  // The bin takes it from p and q, who go by themselves, and later from r.
  expect(newsAt(setting('b', { binned: true }))).toEqual([
    [0, ['owner', 'p', 'q']],
    [12, ['owner', 'r']],
  ])
  // A grant with a last day of its own: that is told, though nobody gains then.
  expect(newsAt(giving('a', 'person:q', steward, { until: now + 20 }))).toEqual([
    [0, ['q']],
    [7, ['q']],
    [20, []],
  ])
})

test('what comes to the web is told down to places at which access is of their own, though nobody’s differs', () => {
  const state = world(
    person('p'),
    node('a', 'root'),
    node('b', 'a'),
    node('c', 'b'),
    grant('a', 'person:owner', steward),
    grant('b', 'person:p', reader),
  )
  const edits = [publishing('a')]
  const result = judging(state, 'owner', ...edits)
  if (!result.ok) throw new Error('must be allowed')
  const [found] = impact(
    proposedOf(snapshotOf(state, now), { author: 'owner' as PersonId, reason: '', edits }, result.value),
  )
  const onTheWeb = found?.differences.filter(each => each.person === theWeb) ?? []
  expect(onTheWeb.map(each => each.node).sort()).toEqual(['a', 'b', 'c'])
})
