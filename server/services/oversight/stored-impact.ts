import type { NodeId, PersonId } from '#core/base/ids.ts'
import type { Difference } from '#core/access/diff-rows.ts'
import type { RecordedImpact } from '#core/impact/bulk.ts'
import type { ActionSet } from '#core/levels/action.ts'

type Row = readonly [PersonId, NodeId, ActionSet, ActionSet, number?]

/** What an entry of the history did, as it lies in its row. */
export function storedImpact({ differences, counted, roots }: RecordedImpact): string {
  const rows = differences.map(({ person, node, before, after, nodes }) =>
    nodes === 1 ? [person, node, before, after] : [person, node, before, after, nodes],
  )
  return JSON.stringify(counted === null ? rows : { rows, counted, roots })
}

export function readImpact(effect: string): RecordedImpact {
  const kept = JSON.parse(effect) as Row[] | (Omit<RecordedImpact, 'differences'> & { rows: Row[] })
  return Array.isArray(kept)
    ? { differences: kept.map(differenceFrom), counted: null, roots: [] }
    : { differences: kept.rows.map(differenceFrom), counted: kept.counted, roots: kept.roots }
}

const differenceFrom = ([person, node, before, after, nodes = 1]: Row): Difference => ({
  person,
  node,
  nodes,
  before,
  after,
})
