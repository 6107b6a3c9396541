import { rowOf } from '../../base/collection.ts'
import type { NodeId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import { pathOf, rootOf, type State } from '../../state/state.ts'
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
    const node = createdNode(
      { id: edit.node, parent: edit.parent, kind: edit.as, name: edit.name },
      { maker: context.author, madeAt: at },
    )
    return ok([{ table: 'nodes', id: node.id, before: null, after: node }])
  },
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
}

export const orderNode: EditRule<OrderNode> = {
  kind: 'node.order',
  lacks: (context, edit) => lacksOrdering(context, edit.node),
  apply: (context, edit) => {
    const before = rowOf(context.now.state.nodes, edit.node)
    if (before === undefined) return refused({ code: 'unknown', what: 'place' })
    return ok([{ table: 'nodes', id: before.id, before, after: { ...before, order: edit.order } }])
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
})
