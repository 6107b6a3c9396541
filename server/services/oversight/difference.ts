import type { ColumnDifferenceView, CountedView, DifferenceView } from '#contract/views/impact.ts'
import type { PathView, PlaceName } from '#contract/views/names.ts'
import type { ColumnDifference } from '#core/access/column-differences.ts'
import { theWeb } from '#core/access/public.ts'
import { rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import type { Counted } from '#core/access/totals.ts'
import type { Difference } from '#core/access/diff-rows.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { type Snapshot, pathOf } from '#core/state/state.ts'
import { type Asker, nameOf, pathWords } from '../viewer/asker.ts'

/** One difference with its names: those after it, or before it for what goes. */
export const differenceView = (
  after: Snapshot,
  asker: Asker,
  { person, node, nodes, ...sets }: Difference,
): DifferenceView => ({
  person: personNamed(after, asker, person),
  place: placeNamed(after, asker, node),
  places: nodes,
  ...sets,
})

/** Thousands of differences are about the same people and places: each is put into words once for its reader. */
interface Named {
  readonly after: Snapshot
  readonly people: Map<PersonId, PlaceName>
  readonly places: Map<NodeId, PathView>
}

const named = new WeakMap<Asker, Named>()

function namedFor(after: Snapshot, asker: Asker): Named {
  const known = named.get(asker)
  if (known?.after === after) return known
  const fresh = { after, people: new Map(), places: new Map() }
  named.set(asker, fresh)
  return fresh
}

function personNamed(after: Snapshot, asker: Asker, id: PersonId): PlaceName {
  const { people } = namedFor(after, asker)
  const isHere = rowOf(after.state.persons, id) !== undefined
  const name = () =>
    id === theWeb ? 'The web, without signing in' : nameOf(isHere ? after : asker.snapshot, id)
  const person = people.get(id) ?? { id, name: name() }
  people.set(id, person)
  return person
}

function placeNamed(after: Snapshot, asker: Asker, id: NodeId): PathView {
  const { places } = namedFor(after, asker)
  const known = places.get(id)
  if (known !== undefined) return known
  const { state } = rowOf(after.state.nodes, id) === undefined ? asker.snapshot : after
  const [node, ...above] = pathOf(state, id)
  const place = { id, name: node?.name ?? '', path: pathWords(asker, above) }
  places.set(id, place)
  return place
}

/** What all comes to, with the names of those for whom most differs. */
export function countedView(after: Snapshot, asker: Asker, counted: Counted): CountedView {
  const { gains, losses, places, turns, mostPeople, mostPlaces, hasColumns } = counted
  return {
    gains,
    losses,
    places,
    hasColumns,
    turns: turns.slice(0, turnsAtMost).map(([before, after, times]) => ({ before, after, times })),
    mostPeople: mostPeople.map(({ person, ...counts }) => ({
      person: personNamed(after, asker, person),
      ...counts,
    })),
    mostPlaces: mostPlaces.map(({ node, nodes, gaining, losing, web }) => ({
      place: placeNamed(after, asker, node),
      places: nodes,
      gaining,
      losing,
      web,
    })),
  }
}

const turnsAtMost = 12

/** The same for a restricted column. */
export function columnDifferenceView(
  after: Snapshot,
  asker: Asker,
  { person, column, at, before, after: will }: ColumnDifference,
): ColumnDifferenceView {
  const row = rowOf(after.state.columns, column) ?? rowOf(asker.snapshot.state.columns, column)
  return {
    person: personNamed(after, asker, person),
    place: placeNamed(after, asker, at),
    column: { id: column, name: row?.name ?? '' },
    before,
    after: will,
  }
}

/** In an order that people can follow: by person, then down the tree. */
export function inOrder<View extends DifferenceView>(views: readonly View[]): View[] {
  const wayTo = ({ place }: View) => (place.path === '' ? place.name : `${place.path} › ${place.name}`)
  return views.toSorted(
    (a, b) =>
      compareWords(a.person.name, b.person.name) ||
      (a.person.id < b.person.id ? -1 : a.person.id > b.person.id ? 1 : 0) ||
      compareWords(wayTo(a), wayTo(b)),
  )
}
