import type { ColumnDifferenceView, CountedView, DifferenceView } from '#contract/effect-views.ts'
import type { PathView, PlaceName } from '#contract/views.ts'
import type { ColumnDifference } from '#core/access/column-differences.ts'
import { theWeb } from '#core/access/public.ts'
import { rowOf } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import type { Counted } from '#core/impact/summed.ts'
import type { Difference } from '#core/access/effect-rows.ts'
import { type Moment, pathOf } from '#core/state/state.ts'
import { type Asker, nameOf, pathWords } from './asker.ts'

/** One difference with its names: those after it, or before it for what goes. */
export const differenceView = (
  after: Moment,
  asker: Asker,
  { person, node, nodes, ...sets }: Difference,
): DifferenceView => ({
  person: personNamed(after, asker, person),
  place: placeNamed(after, asker, node),
  places: nodes,
  ...sets,
})

function personNamed(after: Moment, asker: Asker, id: PersonId): PlaceName {
  if (id === theWeb) return { id, name: 'The web, without signing in' }
  const isHere = rowOf(after.state.persons, id) !== undefined
  return { id, name: nameOf(isHere ? after : asker.moment, id) }
}

function placeNamed(after: Moment, asker: Asker, id: NodeId): PathView {
  const { state } = rowOf(after.state.nodes, id) === undefined ? asker.moment : after
  const [place, ...above] = pathOf(state, id)
  return { id, name: place?.name ?? '', path: pathWords(asker, above) }
}

/** What all comes to, with the names of those for whom most differs. */
export function countedView(after: Moment, asker: Asker, counted: Counted): CountedView {
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
  after: Moment,
  asker: Asker,
  { person, column, at, before, after: will }: ColumnDifference,
): ColumnDifferenceView {
  const row = rowOf(after.state.columns, column) ?? rowOf(asker.moment.state.columns, column)
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
      a.person.name.localeCompare(b.person.name) ||
      (a.person.id < b.person.id ? -1 : a.person.id > b.person.id ? 1 : 0) ||
      wayTo(a).localeCompare(wayTo(b)),
  )
}
