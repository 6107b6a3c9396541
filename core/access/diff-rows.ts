import type { Sides } from './classes.ts'
import { nodesIn } from './cut-segments.ts'
import { theWeb } from './public.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { idOf } from '../base/numbering.ts'
import type { AccessIndex } from '../index/layout.ts'
import type { Below } from './side-by-side.ts'
import type { ActionSet } from '../levels/action.ts'

/** What one person has at a place, and at what lies in it and answers alike, without a change set and with it. */
export interface Difference {
  readonly person: PersonId
  readonly node: NodeId
  /** How many places it speaks of, `node` included: the others lie below it. */
  readonly nodes: number
  readonly before: ActionSet
  readonly after: ActionSet
}

/** The web where rows name a person. */
export const webNumber = -2

/** One row: of a person at a place and all below it that answers alike. */
export interface DiffRow {
  readonly below: Below
  readonly person: number
  readonly node: number
  readonly nodes: number
  readonly before: ActionSet
  readonly after: ActionSet
}

/** Differences as whole numbers, `rowWidth` for each: on which side the place is, person, place, how many, before, after. */
export type Rows = Int32Array

const rowWidth = 6
/** Past so many rows a difference stays one for a place and all below it that answers alike. */
const mostApart = 5000

/** Each as one row. */
export function rowsFrom(found: readonly DiffRow[]): Rows {
  const rows = new Int32Array(rowWidth * found.length)
  for (const [place, { below, person, node, nodes, before, after }] of found.entries())
    rows.set([below.side, person, node, nodes, before, after], place * rowWidth)
  return rows
}

/** Place by place, where they are few enough to be read so. */
export function rowsApart(indexes: Sides<AccessIndex>, found: readonly DiffRow[]): Rows {
  const places = found.reduce((sum, each) => sum + each.nodes, 0)
  if (places === found.length || places > mostApart) return rowsFrom(found)
  const known = new Map<number, number[]>()
  return rowsFrom(
    found.flatMap(row => {
      if (row.nodes === 1) return [row]
      const { side, cuts } = row.below
      const nodes = known.get(row.node) ?? nodesIn(indexes[side], row.node, cuts)
      known.set(row.node, nodes)
      return nodes.map(node => ({ ...row, node, nodes: 1 }))
    }),
  )
}

/** The same with ids. */
export function differencesFrom(indexes: Sides<AccessIndex>, rows: Rows): Difference[] {
  const differences: Difference[] = []
  for (let at = 0; at < rows.length; at += rowWidth) {
    const [side, person, node, nodes, before, after] = rows.subarray(at, at + rowWidth)
    differences.push({
      person: personAt(indexes, person as number),
      node: idOf(indexes[side as 0 | 1].nodes, node as number) as NodeId,
      nodes: nodes as number,
      before: before as ActionSet,
      after: after as ActionSet,
    })
  }
  return differences
}

/** Has the same number on both sides, where it is on both. */
export const personAt = ([was, is]: Sides<AccessIndex>, number: number): PersonId =>
  number === webNumber ? theWeb : (idOf(is.persons, number) ?? (idOf(was.persons, number) as PersonId))
