import type { DifferenceView } from '#contract/views.ts'
import { rowOf } from '#core/base/collection.ts'
import type { Difference } from '#core/impact/impact.ts'
import type { Moment } from '#core/state/state.ts'
import { type Asker, nameOf } from './asker.ts'

/** One difference with its names: those after it, or before it for what goes. */
export const differenceView = (
  after: Moment,
  asker: Asker,
  { person, node, ...sets }: Difference,
): DifferenceView => ({
  person: {
    id: person,
    name: nameOf(rowOf(after.state.persons, person) === undefined ? asker.moment : after, person),
  },
  place: {
    id: node,
    name: (rowOf(after.state.nodes, node) ?? rowOf(asker.moment.state.nodes, node))?.name ?? '',
  },
  ...sets,
})
