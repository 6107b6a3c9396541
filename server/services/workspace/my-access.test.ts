import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { AccessiblePlaceView } from '#contract/views/access.ts'
import { check } from '#core/access/evaluate.ts'
import { subjectOf } from '#core/access/subject.ts'
import { allRows, rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId, WorkspaceId } from '#core/base/ids.ts'
import { has } from '#core/levels/action.ts'
import type { Holding } from '#core/people/person.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { applyChanges, type Snapshot, type State } from '#core/state/state.ts'
import { holding, now } from '#core/tests/world.ts'
import { anyWorld, personIds } from '#core/tests/worlds.ts'
import { type Asker, readerAt } from '../viewer/asker.ts'
import { offboardingView } from '../people/offboarding.ts'
import type { Parts } from '../../parts.ts'
import { accessiblePlaces } from '../access/accessible-places.ts'
import { myAccessView } from './my-access.ts'

/** What is told of reaching and leaving, held against asking place by place, in random workspaces. */
const askerIn = (snapshot: Snapshot, id: string): Asker =>
  readerAt('w' as WorkspaceId, snapshot, id as PersonId) ?? expect.fail(`no ${id}`)

const placesOf = (state: State) => allRows(state.nodes).filter(node => node.parent !== null)

/** The level at each place that a list of places stands for: where none is told, that of the place above. */
function spreadOut(snapshot: Snapshot, views: readonly AccessiblePlaceView[], at: NodeId): number {
  const own = views.find(each => each.id === at)
  if (own !== undefined) return own.actions
  const parent = rowOf(snapshot.state.nodes, at)?.parent ?? null
  return parent === null ? 0 : spreadOut(snapshot, views, parent)
}

test('one’s own list of places stands for just what one may do at each', async () => {
  await fc.assert(
    fc.asyncProperty(anyWorld, fc.constantFrom(...personIds), async (state, who) => {
      const snapshot = snapshotOf(state, now)
      if (subjectOf(snapshot, who as PersonId)?.isActive !== true) return
      const { places } = await myAccessView({ clock: () => now } as Parts, askerIn(snapshot, who))
      const seen = placesOf(state).filter(({ id }) => has(check(snapshot, who as PersonId, id), 'see'))
      expect(places.reduce((sum, { alike }) => sum + 1 + alike, 0)).toBe(seen.length)
      for (const { id } of seen)
        expect(spreadOut(snapshot, places, id)).toBe(check(snapshot, who as PersonId, id))
      for (const { through } of places) expect(through).not.toEqual([])
    }),
    { numRuns: 400 },
  )
})

test('of another’s places those are told at which the reader gives access, and nothing beside them', async () => {
  await fc.assert(
    fc.asyncProperty(
      anyWorld,
      fc.constantFrom(...personIds.slice(1)),
      fc.constantFrom(...personIds),
      async (state, reader, who) => {
        const role = holding(reader, 'role-member').row as Holding
        const snapshot = snapshotOf(
          applyChanges(state, [{ table: 'holdings', id: role.id, before: null, after: role }]),
          now,
        )
        const isHere = (id: string) => subjectOf(snapshot, id as PersonId)?.isActive === true
        if (reader === who || !isHere(reader) || !isHere(who)) return
        const asker = askerIn(snapshot, reader)
        fc.pre(asker.subject.person.kind === 'member')
        const views = await accessiblePlaces({} as Parts, asker, who)
        const mayAsk = placesOf(state).filter(
          ({ id }) =>
            has(check(snapshot, reader as PersonId, id), 'share') &&
            has(check(snapshot, who as PersonId, id), 'see'),
        )
        expect(views.reduce((sum, { alike }) => sum + 1 + alike, 0)).toBe(mayAsk.length)
        const mayBeNamed = new Set<string>(mayAsk.map(node => node.id))
        for (const { id, actions } of views) {
          expect(mayBeNamed.has(id)).toBe(true)
          expect(actions).toBe(check(snapshot, who as PersonId, id as NodeId))
        }
      },
    ),
    { numRuns: 400 },
  )
})

test('what somebody alone keeps is what nobody gives access at once they are gone', () => {
  fc.assert(
    fc.property(anyWorld, fc.constantFrom(...personIds.slice(1)), (state, who) => {
      const snapshot = snapshotOf(state, now)
      const view = offboardingView(askerIn(snapshot, 'owner'), who)
      const others = personIds.filter(id => id !== who)
      const keeps = (id: string, node: NodeId) => has(check(snapshot, id as PersonId, node), 'share')
      const alone = new Set(
        placesOf(state)
          .filter(({ id }) => keeps(who, id) && !others.some(other => keeps(other, id)))
          .map(node => node.id),
      )
      // What inheritance was broken at stands for itself.
      const topmost = [...alone].filter(id => {
        const node = rowOf(state.nodes, id)
        return node?.parent == null || node.broken !== null || !alone.has(node.parent)
      })
      expect(view.places.map(place => place.id).sort()).toEqual(topmost.sort())
    }),
    { numRuns: 400 },
  )
})
