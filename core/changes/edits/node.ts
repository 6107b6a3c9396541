import { rowOf } from '../../base/collection.ts'
import type { NodeId, SectionId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import { pathOf, type RecordChange, rootOf, type State } from '../../state/state.ts'
import { type ContentNode, deepest, kindsWithin, type NodeKind, plainNode } from '../../tree/node.ts'
import {
  type Context,
  type EditRule,
  isTaken,
  lacksAction,
  lacksEditing,
  lacksPrivilege,
} from '../context.ts'
import type { Refusal } from '../refusal.ts'

export interface CreateNode {
  readonly kind: 'node.create'
  readonly node: NodeId
  readonly parent: NodeId
  readonly as: NodeKind
  readonly name: string
  /** Place among its siblings; the first, if nothing is said. */
  readonly order?: number | undefined
  /** Of a row. */
  readonly section?: SectionId | null | undefined
}

export const createNode: EditRule<CreateNode> = {
  kind: 'node.create',
  lacks: (context, edit) => lacksAction(context, edit.parent, 'add'),
  apply: (context, edit) => {
    const { state, at } = context.now
    const parent = rowOf(state.nodes, edit.parent)
    if (parent === undefined) return refused({ code: 'unknown', what: 'place' })
    if (isTaken(state, 'nodes', edit.node)) return refused({ code: 'already-there', what: 'id' })
    const wrong = wrongWithin(parent, edit.as) ?? tooDeep(state, parent.id, 1)
    if (wrong !== undefined) return refused(wrong)
    const { section = null, order = 0 } = edit
    if (section !== null && !isSectionOf(state, section, parent.id))
      return refused({ code: 'unknown', what: 'section' })
    const node = createdNode(
      { id: edit.node, parent: edit.parent, kind: edit.as, name: edit.name },
      { maker: context.author, madeAt: at },
    )
    const { serial, changes } = numbered(parent, 1)
    const after = { ...node, order, section, ...(node.kind === 'row' ? { serial: serial + 1 } : {}) }
    return ok([...changes, { table: 'nodes', id: node.id, before: null, after }])
  },
}

export const isSectionOf = (state: State, section: SectionId, board: NodeId): boolean =>
  rowOf(state.sections, section)?.board === board

/** What a board becomes that gives so many numbers, and the last one that it gave before. */
export function numbered(
  parent: ContentNode,
  count: number,
): { readonly serial: number; readonly changes: readonly RecordChange[] } {
  const serial = parent.serial ?? 0
  if (parent.kind !== 'board' || count === 0) return { serial, changes: [] }
  const after = { ...parent, serial: serial + count }
  return { serial, changes: [{ table: 'nodes', id: parent.id, before: parent, after }] }
}

/** Only homes stand under the root, and each kind holds only some kinds. */
export const wrongWithin = (parent: ContentNode, kind: NodeKind): Refusal | undefined =>
  parent.kind === 'root' || !kindsWithin(parent.kind).includes(kind)
    ? { code: 'wrong-place', within: parent.kind, kind }
    : undefined

/** Whether so many levels more below a place would lie deeper than any may. */
export const tooDeep = (state: State, parent: NodeId, levels: number): Refusal | undefined =>
  pathOf(state, parent).length + levels > deepest ? { code: 'too-much', what: 'depth' } : undefined

export interface CreateHome {
  readonly kind: 'home.create'
  readonly node: NodeId
  readonly name: string
}

/** A shared home: a folder under the root. Its stewards are grants of the same change set. */
export const createHome: EditRule<CreateHome> = {
  kind: 'home.create',
  lacks: context => lacksPrivilege(context, 'create homes'),
  apply: (context, edit) => {
    const { state, at } = context.now
    if (isTaken(state, 'nodes', edit.node)) return refused({ code: 'already-there', what: 'id' })
    const node = createdNode(
      { id: edit.node, parent: rootOf(state).id, kind: 'folder', name: edit.name },
      { maker: context.author, madeAt: at },
    )
    return ok([{ table: 'nodes', id: node.id, before: null, after: { ...node, home: { of: 'shared' } } }])
  },
}

export interface DescribeNode {
  readonly kind: 'node.describe'
  readonly node: NodeId
  readonly name?: string | undefined
  readonly note?: string | undefined
}

export const describeNode: EditRule<DescribeNode> = {
  kind: 'node.describe',
  lacks: (context, edit) => lacksEditing(context, edit.node),
  apply: (context, edit) => {
    const before = rowOf(context.now.state.nodes, edit.node)
    if (before === undefined) return refused({ code: 'unknown', what: 'place' })
    const after = { ...before, name: edit.name ?? before.name, note: edit.note ?? before.note }
    return ok([{ table: 'nodes', id: before.id, before, after }])
  },
}

export interface OrderNode {
  readonly kind: 'node.order'
  readonly node: NodeId
  /** Place among its siblings: between two of them lies always another number. */
  readonly order: number
  /** Of a row; where it stands, if nothing is said. */
  readonly section?: SectionId | null | undefined
}

export const orderNode: EditRule<OrderNode> = {
  kind: 'node.order',
  lacks: (context, edit) => lacksOrdering(context, edit.node),
  apply: (context, edit) => {
    const before = rowOf(context.now.state.nodes, edit.node)
    if (before === undefined) return refused({ code: 'unknown', what: 'place' })
    const { order, section = before.section } = edit
    const isThere = section === null || section === before.section
    if (!isThere && !isSectionOf(context.now.state, section, before.parent as NodeId))
      return refused({ code: 'unknown', what: 'section' })
    return ok([{ table: 'nodes', id: before.id, before, after: { ...before, order, section } }])
  },
}

/** What one does not see one does not order. */
export function lacksOrdering(context: Context, node: NodeId): Refusal | undefined {
  const parent = rowOf(context.before.state.nodes, node)?.parent ?? null
  return parent === null
    ? { code: 'unknown', what: 'place' }
    : (lacksAction(context, node, 'see') ?? lacksAction(context, parent, 'arrange'))
}

/** A node as it is born: released, following its parent, with nothing of its own. */
export const createdNode = (
  is: Pick<ContentNode, 'id' | 'parent' | 'kind' | 'name'>,
  by: Pick<ContentNode, 'maker' | 'madeAt'>,
): ContentNode => ({
  ...is,
  ...by,
  ...plainNode,
  order: 0,
  section: null,
  serial: is.kind === 'board' ? 0 : null,
})
