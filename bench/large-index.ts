import { none } from '#core/base/vector.ts'
import type { NodeId } from '#core/base/ids.ts'
import { emptyNumbering, numberOf } from '#core/base/numbering.ts'
import { linesOf, packIds } from '#core/base/packed-ids.ts'
import { entryVectors, type Source } from '#core/index/build.ts'
import type { Rows, TableName } from '#core/state/kinds.ts'
import type { RecordChange } from '#core/state/state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { generateLarge, type Size } from '#demo/large.ts'

/** A large workspace as arrays: what an index is built from; with or without starts and ends. */
export function largeSource(size: Size, now: number, isTimed = true): Source {
  const rows = new Map<TableName, unknown[]>()
  const nodes: Pick<ContentNode, 'id' | 'parent'>[] = []
  const special: ContentNode[] = []
  for (const { table, after } of generateLarge(size, now) as Generator<RecordChange>) {
    if (table !== 'nodes') rows.set(table, pushed(rows.get(table), isTimed ? after : untimed(after)))
    else if (after !== null) {
      nodes.push({ id: after.id, parent: after.parent })
      if (isSpecial(after)) special.push(after)
    }
  }
  const of = <T extends TableName>(table: T) => (rows.get(table) ?? []) as Rows[T][]
  const packed = packIds({ lines: linesOf(nodes.map(node => node.id)), count: nodes.length })
  const numbering = emptyNumbering<NodeId>(packed)
  const numberAbove = ({ parent }: Pick<ContentNode, 'parent'>) =>
    parent === null ? none : (numberOf(numbering, parent) ?? none)
  const entries = [...of('grants'), ...of('limits')]
  return {
    workspace: of('workspaces')[0] as Rows['workspaces'],
    levels: of('levels'),
    persons: of('persons'),
    teams: of('teams'),
    memberships: of('memberships'),
    nodes: packed,
    parents: Int32Array.from(nodes, numberAbove),
    special,
    entries: [entryVectors(entries, id => numberOf(numbering, id as NodeId) ?? none)],
  }
}

const untimed = (row: object | null) =>
  row !== null && 'until' in row ? { ...row, from: null, until: null } : row

function pushed(rows: unknown[] | undefined, row: unknown): unknown[] {
  if (rows === undefined) return [row]
  rows.push(row)
  return rows
}

const isSpecial = ({ home, broken, draft, archived, binned, web }: ContentNode): boolean =>
  home !== null || broken !== null || draft || archived || binned !== null || web !== null
