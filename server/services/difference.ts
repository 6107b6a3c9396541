import type { ColumnDifferenceView, DifferenceView } from '#contract/views.ts'
import type { ColumnDifference } from '#core/access/column-differences.ts'
import { theWeb } from '#core/access/public.ts'
import { rowOf } from '#core/base/collection.ts'
import { noActions } from '#core/levels/action.ts'
import type { Difference } from '#core/impact/impact.ts'
import { type Moment, pathOf } from '#core/state/state.ts'
import { type Asker, nameOf, pathWords } from './asker.ts'

/** One difference with its names: those after it, or before it for what goes. */
export function differenceView(
  after: Moment,
  asker: Asker,
  { person, node, nodes, ...sets }: Difference,
): DifferenceView {
  const isHere = rowOf(after.state.persons, person) !== undefined
  const { state } = rowOf(after.state.nodes, node) === undefined ? asker.moment : after
  const [place, ...above] = pathOf(state, node)
  return {
    person: {
      id: person,
      name: person === theWeb ? 'The web, without signing in' : nameOf(isHere ? after : asker.moment, person),
    },
    place: { id: node, name: place?.name ?? '', path: pathWords(asker, above) },
    places: nodes,
    ...sets,
  }
}

/** The same for a restricted column. */
export function columnDifferenceView(
  after: Moment,
  asker: Asker,
  { person, column, at, before, after: will }: ColumnDifference,
): ColumnDifferenceView {
  const told = differenceView(after, asker, {
    person,
    node: at,
    nodes: 1,
    before: noActions,
    after: noActions,
  })
  const row = rowOf(after.state.columns, column) ?? rowOf(asker.moment.state.columns, column)
  const { person: who, place } = told
  return { person: who, place, column: { id: column, name: row?.name ?? '' }, before, after: will }
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
