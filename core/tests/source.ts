import { allRows } from '../base/collection.ts'
import { none } from '../base/vector.ts'
import { linesOf, packIds } from '../base/packed-ids.ts'
import type { NodeId } from '../base/ids.ts'
import { entryVectors, type Source } from '../index/build.ts'
import { type State, workspaceOf } from '../state/state.ts'
import type { ContentNode } from '../tree/node.ts'

/** What an index of a state is built from, as it is loaded: its nodes in the order of their ids. */
export function sourceOf(state: State): Source {
  const nodes = allRows(state.nodes).toSorted((a, b) => (a.id < b.id ? -1 : 1))
  const ids = nodes.map(node => node.id)
  const entries = [...allRows(state.grants), ...allRows(state.limits)]
  return {
    workspace: workspaceOf(state),
    levels: allRows(state.levels),
    persons: allRows(state.persons),
    teams: allRows(state.teams),
    memberships: allRows(state.memberships),
    nodes: packIds({ lines: linesOf(ids), count: ids.length }),
    parents: Int32Array.from(nodes, ({ parent }) => (parent === null ? none : ids.indexOf(parent))),
    special: nodes.filter(isSpecial),
    entries: [entryVectors(entries, id => ids.indexOf(id as NodeId))],
  }
}

/** Has a state of its own. */
export const isSpecial = ({ home, broken, draft, archived, binned, web }: ContentNode): boolean =>
  home !== null || broken !== null || draft || archived || binned !== null || web !== null
