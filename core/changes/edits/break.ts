import { rowOf, rowsBy } from '../../base/collection.ts'
import type { GrantId, NodeId } from '../../base/ids.ts'
import { earlierEnd, isOver } from '../../base/instant.ts'
import { ok, refused } from '../../base/result.ts'
import { subjectOf } from '../../access/subject.ts'
import type { Grant } from '../../rules/access-entry.ts'
import { partsOf, personPrincipal } from '../../rules/principal.ts'
import { pathOf, type RecordChange, type State } from '../../state/state.ts'
import type { ContentNode } from '../../tree/node.ts'
import { type Context, type EditRule, lacksActionInArchive } from '../context.ts'

export interface BreakInheritance {
  readonly kind: 'node.break'
  readonly node: NodeId
  readonly mode: 'keep' | 'empty'
  /** The ids of the grants that it makes begin with this. */
  readonly copies: string
}

/**
 * Stops what comes from above. `keep` copies what is inherited, so that nobody's access changes, now
 * or when something begins or ends; `empty` leaves the node's own grants, and the author what the
 * author has there, for as long.
 */
export const breakInheritance: EditRule<BreakInheritance> = {
  kind: 'node.break',
  lacks: (context, edit) => lacksActionInArchive(context, edit.node, 'seal'),
  apply: (context, edit) => {
    const { state, at } = context.now
    const before = rowOf(state.nodes, edit.node)
    if (before === undefined) return refused({ code: 'unknown', what: 'place' })
    if (before.broken !== null) return refused({ code: 'already-there', what: 'break' })
    const after: ContentNode = { ...before, broken: { by: context.author, at } }
    const inherited = before.parent === null ? [] : inheritedGrants(context, before.parent)
    const kept = edit.mode === 'keep' ? inherited : inherited.flatMap(grant => grantsReaching(context, grant))
    const copies = kept.map((grant, index): RecordChange => {
      const id = `${edit.copies}-${index}` as GrantId
      const copy: Grant = { ...grant, id, node: before.id, by: context.author, at, copiedFrom: grant.node }
      return { table: 'grants', id, before: null, after: copy }
    })
    return ok([{ table: 'nodes', id: before.id, before, after }, ...copies])
  },
}

export interface RestoreInheritance {
  readonly kind: 'node.restore'
  readonly node: NodeId
  /** Which of the node's own grants go: the copies that the break made, none, or all. */
  readonly drop: 'copies' | 'none' | 'own'
}

/** Follows again. Limits stay as they are. */
export const restoreInheritance: EditRule<RestoreInheritance> = {
  kind: 'node.restore',
  lacks: (context, edit) => lacksActionInArchive(context, edit.node, 'seal'),
  apply: (context, edit) => {
    const { state } = context.now
    const before = rowOf(state.nodes, edit.node)
    if (before?.broken == null) return refused({ code: 'unknown', what: 'break' })
    const own = rowsBy(state.grants, 'node', before.id)
    const dropped = own.filter(
      grant => edit.drop === 'own' || (edit.drop === 'copies' && grant.copiedFrom !== null),
    )
    return ok([
      { table: 'nodes', id: before.id, before, after: { ...before, broken: null } },
      ...dropped.map((grant): RecordChange => ({
        table: 'grants',
        id: grant.id,
        before: grant,
        after: null,
      })),
    ])
  },
}

/** What flows down from a place: its own grants and those above, up to and including the next break, live or still to begin. */
export function inheritedGrants({ now: { state, at } }: Context, parent: NodeId): Grant[] {
  const above = pathOf(state, parent)
  const stop = above.findIndex(each => each.broken !== null)
  return (stop === -1 ? above : above.slice(0, stop + 1))
    .flatMap(each => rowsBy(state.grants, 'node', each.id))
    .filter(grant => !isOver(grant, at))
    .sort((a, b) => (a.id < b.id ? -1 : 1))
}

/** A grant that reaches the author, as one by name: no longer than what it comes through. Nothing reaches who left in the same change set. */
export function grantsReaching(context: Context, grant: Grant): Grant[] {
  const subject = subjectOf(context.now, context.author)
  if (subject?.isActive !== true || !subject.principals.has(grant.principal)) return []
  const until = earlierEnd(grant.until, membershipEnd(context.now.state, context.author, grant))
  return [{ ...grant, principal: personPrincipal(context.author), until }]
}

function membershipEnd(state: State, author: Context['author'], { principal }: Grant) {
  const parts = partsOf(principal)
  if (parts.kind !== 'team' && parts.kind !== 'leads') return null
  return rowsBy(state.memberships, 'person', author).find(each => each.team === parts.team)?.until ?? null
}
