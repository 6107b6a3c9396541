import { rowOf, rowsBy } from '../../base/collection.ts'
import type { ColumnId, GrantId, LimitId, NodeId } from '../../base/ids.ts'
import { isOver } from '../../base/instant.ts'
import { ok, refused } from '../../base/result.ts'
import { visibleColumns } from '../../access/columns.ts'
import { placeOf } from '../../access/place.ts'
import { subjectOf } from '../../access/subject.ts'
import { has } from '../../levels/action.ts'
import { childrenOf, levelsOf, type RecordChange } from '../../state/state.ts'
import type { ContentNode } from '../../tree/node.ts'
import { authorActions, type Context, type EditOf, type EditRule, isTaken, lacksAction } from '../context.ts'
import { grantsReaching, inheritedGrants } from './break.ts'
import { createdNode, tooDeep, wrongWithin } from './node.ts'

/** Limits and breaks travel, grants never. Only what the author may copy is in the copy. */
export interface DuplicateNode {
  readonly kind: 'node.duplicate'
  readonly node: NodeId
  readonly parent: NodeId
  readonly name: string
  /** The ids of what it makes begin with this. */
  readonly copies: string
}

/**
 * Copies a place with what is in it, as far as the author may copy it. Limits, breaks and exclusions
 * from the web travel; grants never, so that at a break the author gets what the author has at the target.
 */
export const duplicateNode: EditRule<DuplicateNode> = {
  kind: 'node.duplicate',
  lacks: (context, edit) =>
    lacksAction(context, edit.node, 'copy') ?? lacksAction(context, edit.parent, 'add'),
  apply: (context, edit) => {
    const { state } = context.now
    const node = rowOf(state.nodes, edit.node)
    const parent = rowOf(state.nodes, edit.parent)
    if (node === undefined || parent === undefined) return refused({ code: 'unknown', what: 'place' })
    const wrong = wrongWithin(parent, node.kind)
    if (wrong !== undefined) return refused(wrong)
    if (rowOf(context.before.state.nodes, node.id) === undefined)
      return refused({ code: 'too-much', what: 'copy of a copy' })
    const copies = copiesOf(context, edit)
    if (copies.length > copiesAtMost) return refused({ code: 'too-much', what: 'copies' })
    const deep = tooDeep(state, parent.id, levelsOf(state, node.id))
    if (deep !== undefined) return refused(deep)
    if (copies.some(copy => isTaken(state, 'nodes', copy.to)))
      return refused({ code: 'already-there', what: 'id' })
    const places = new Map(copies.map(({ from, to }) => [from.id, to]))
    return ok(
      copies.flatMap(({ from, to }): RecordChange[] => [
        { table: 'nodes', id: to, before: null, after: copiedNode(context, { from, to, places, edit }) },
        ...limitsFor(context, from, to),
        ...columnsFor(context, from, to),
        ...(from.broken === null ? [] : grantsFor(context, edit.parent, to)),
      ]),
    )
  },
}

export interface Copy {
  readonly from: ContentNode
  readonly to: NodeId
}

/** So many places are copied by one change set. */
export const copiesAtMost = 5000

/**
 * Which places are copied, parents first: what the author may not copy stays behind with all that is in it, and so does
 * what this change set has made, copies of its own among it. Stops past the most that are copied at once.
 */
export function copiesOf(context: Context, { node, copies }: EditOf<'node.duplicate'>): Copy[] {
  const found: Copy[] = []
  const { nodes } = context.now.state
  const top = rowOf(nodes, node)
  const waiting = top === undefined ? [] : [top]
  for (let from = waiting.shift(); from !== undefined; from = waiting.shift()) {
    if (found.length > copiesAtMost) break
    if (rowOf(context.before.state.nodes, from.id) === undefined) continue
    if (!has(authorActions(context, from.id), 'copy')) continue
    found.push({ from, to: `${copies}-${found.length}` as NodeId })
    waiting.push(...childrenOf(context.now.state, from.id))
  }
  return found
}

interface Copying extends Copy {
  readonly places: ReadonlyMap<NodeId, NodeId>
  readonly edit: EditOf<'node.duplicate'>
}

function copiedNode({ author, now }: Context, { from, to, places, edit }: Copying): ContentNode {
  const isTop = from.id === edit.node
  const parent = isTop ? edit.parent : (places.get(from.parent as NodeId) ?? edit.parent)
  const by = { maker: author, madeAt: now.at }
  return {
    ...createdNode({ id: to, parent, kind: from.kind, name: isTop ? edit.name : from.name }, by),
    note: from.note,
    order: isTop ? 0 : from.order,
    draft: from.draft,
    broken: from.broken === null ? null : { by: author, at: now.at },
    web: from.web === 'excluded' ? 'excluded' : null,
  }
}

const limitsFor = ({ author, now: { state, at } }: Context, from: ContentNode, to: NodeId): RecordChange[] =>
  rowsBy(state.limits, 'node', from.id)
    .filter(limit => !isOver(limit, at))
    .sort((a, b) => (a.id < b.id ? -1 : 1))
    .map((limit, index) => {
      const id = `${to}-l${index}` as LimitId
      return { table: 'limits', id, before: null, after: { ...limit, id, node: to, by: author, at } }
    })

/** A column that the author may not know of is not copied. */
function columnsFor({ author, now }: Context, from: ContentNode, to: NodeId): RecordChange[] {
  const subject = subjectOf(now, author)
  const place = placeOf(now, from.id)
  if (subject === undefined || place === undefined) return []
  return visibleColumns(now, subject, place).map((column, index) => {
    const id = `${to}-c${index}` as ColumnId
    return { table: 'columns', id, before: null, after: { ...column, id, board: to } }
  })
}

/** What the author has at the target, as grants by name. */
const grantsFor = (context: Context, target: NodeId, to: NodeId): RecordChange[] =>
  inheritedGrants(context, target)
    .flatMap(grant => grantsReaching(context, grant))
    .map((grant, index) => {
      const id = `${to}-g${index}` as GrantId
      const { author, now } = context
      const after = { ...grant, id, node: to, by: author, at: now.at, copiedFrom: null }
      return { table: 'grants', id, before: null, after }
    })
