import type { NodeId, PersonId } from '#core/base/ids.ts'
import type { Difference } from '#core/access/effect-rows.ts'
import type { Recorded } from '#core/impact/wide.ts'
import type { ActionSet } from '#core/levels/action.ts'

type Row = readonly [PersonId, NodeId, ActionSet, ActionSet, number?]

/** What an entry of the history did, as it lies in its row. */
export function keptEffect({ differences, counted, tops }: Recorded): string {
  const rows = differences.map(({ person, node, before, after, nodes }) =>
    nodes === 1 ? [person, node, before, after] : [person, node, before, after, nodes],
  )
  return JSON.stringify(counted === null ? rows : { rows, counted, tops })
}

export function readEffect(effect: string): Recorded {
  const kept = JSON.parse(effect) as Row[] | (Omit<Recorded, 'differences'> & { rows: Row[] })
  return Array.isArray(kept)
    ? { differences: kept.map(differenceFrom), counted: null, tops: [] }
    : { differences: kept.rows.map(differenceFrom), counted: kept.counted, tops: kept.tops }
}

const differenceFrom = ([person, node, before, after, nodes = 1]: Row): Difference => ({
  person,
  node,
  nodes,
  before,
  after,
})
