import { allRows, rowOf } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Span } from '../base/instant.ts'
import { type Action, allActions, has, listActions } from '../levels/action.ts'
import type { Person } from '../people/person.ts'
import type { Gives } from '../rules/access-entry.ts'
import type { BoardColumn } from '../rules/column.ts'
import type { Principal } from '../rules/principal.ts'
import { type Snapshot, type State, workspaceOf } from '../state/state.ts'
import type { ContentNode } from '../tree/node.ts'

/**
 * The access model once more, slow and plain: written from docs/access-model.md and not from the engine,
 * over lists of names, with no index, no bits and no cache. The engine has to agree with it.
 */
export function judged(
  { state, at }: Snapshot,
  personId: PersonId,
  nodeId: NodeId,
  { beforeStates = false } = {},
): Action[] {
  const live = (span: Span) => (span.from ?? 0) <= at && at < (span.until ?? Infinity)
  const person = rowOf(state.persons, personId)
  const place = rowOf(state.nodes, nodeId)
  if (person === undefined || place === undefined || person.status !== 'active' || !live(person)) return []

  const path = ancestry(state, place)
  const given = new Set<Action>()
  for (const each of path) {
    for (const grant of allRows(state.grants))
      if (grant.node === each.id && live(grant) && matches({ state, at }, person, grant.principal))
        for (const action of givenBy(state, grant.gives)) given.add(action)
    if (each.broken !== null) break
  }

  let held = [...given]
  for (const limit of allRows(state.limits)) {
    if (!path.some(each => each.id === limit.node) || !live(limit)) continue
    if (!matches({ state, at }, person, limit.principal)) continue
    const ofGroup = limit.principal !== 'guests' && !limit.principal.startsWith('person:')
    if (ofGroup && limit.sparesStewards && person.kind === 'member' && given.has('share')) continue
    held = held.filter(action => has(limit.allows, action))
  }
  if (person.kind === 'guest') {
    const { guestCeiling } = workspaceOf(state)
    held = held.filter(action => has(guestCeiling, action) && !['share', 'seal', 'publish'].includes(action))
  }
  if (beforeStates) return allActions.filter(action => held.includes(action))
  const mayReadDraft =
    held.includes('change') || held.includes('share') || (place.maker === personId && held.includes('add'))
  if (
    path.some(
      each => each.archived || (each.home?.of === 'team' && rowOf(state.teams, each.home.team)?.archived),
    )
  )
    held = held.filter(action => ['see', 'copy', 'share', 'seal'].includes(action))
  if (path.some(each => each.binned)) held = []
  if (place.draft && !mayReadDraft) held = []
  return held.includes('see') ? allActions.filter(action => held.includes(action)) : []
}

function givenBy(state: State, gives: Gives): Action[] {
  if (typeof gives === 'number') return listActions(gives)
  return allRows(state.levels).flatMap(level => (level.id === gives ? listActions(level.actions) : []))
}

/** Whether a visitor without an account sees a place: word for word what the contract says of `public`. */
export function judgedPublic({ state, at }: Snapshot, nodeId: NodeId): boolean {
  const node = rowOf(state.nodes, nodeId)
  if (node === undefined) return false
  const path = ancestry(state, node)
  const team = allRows(state.teams).find(each =>
    path.some(({ home }) => home?.of === 'team' && home.team === each.id),
  )
  if (!workspaceOf(state).allowsPublishing || team?.allowsPublishing === false || team?.archived) return false
  if (path.some(each => each.archived || each.binned)) return false
  for (const limit of allRows(state.limits)) {
    const isLive = (limit.from ?? 0) <= at && at < (limit.until ?? Infinity)
    const isForAll = ['anyone', 'everyone', 'guests'].includes(limit.principal)
    if (isLive && isForAll && path.some(each => each.id === limit.node) && !has(limit.allows, 'see'))
      return false
  }
  return path.some((published, index) => {
    const upTo = path.slice(0, index)
    return (
      published.web === 'published' &&
      upTo.every(each => each.broken === null) &&
      [...upTo, published].every(each => each.web !== 'excluded' && !each.draft)
    )
  })
}

function ancestry(state: State, node: ContentNode): ContentNode[] {
  const parent = node.parent === null ? undefined : rowOf(state.nodes, node.parent)
  return parent === undefined ? [node] : [node, ...ancestry(state, parent)]
}

function matches({ state, at }: Snapshot, person: Person, principal: Principal): boolean {
  if (principal === 'anyone') return true
  if (principal === 'guests') return person.kind === 'guest'
  if (principal === 'everyone') return person.kind === 'member'
  const [kind, id] = principal.split(':')
  if (kind === 'person') return id === person.id
  const team = allRows(state.teams).find(each => each.id === id)
  if (team === undefined) return false
  if (person.kind === 'guest' && (!team.welcomesGuests || kind === 'leads')) return false
  if (team.joining === 'everyone' && person.kind === 'member' && kind === 'team') return true
  return allRows(state.memberships).some(
    each =>
      each.team === team.id &&
      each.person === person.id &&
      (each.from ?? 0) <= at &&
      at < (each.until ?? Infinity) &&
      (kind === 'team' || each.lead),
  )
}

/** What somebody may do with a restricted column in a row, word for word. */
export function judgedColumn(
  snapshot: Snapshot,
  personId: PersonId,
  { row, column }: { readonly row: NodeId; readonly column: BoardColumn },
): 'none' | 'see' | 'edit' {
  const person = rowOf(snapshot.state.persons, personId)
  const actions = judged(snapshot, personId, row)
  if (person === undefined || !actions.includes('see')) return 'none'
  const isSteward = judged(snapshot, personId, column.board).includes('share')
  const named = (principals: readonly Principal[] | null) =>
    principals === null || isSteward || principals.some(each => matches(snapshot, person, each))
  if (!named(column.viewers)) return 'none'
  const isOwn = rowOf(snapshot.state.nodes, row)?.maker === personId && actions.includes('add')
  return named(column.editors) && (actions.includes('change') || isOwn) ? 'edit' : 'see'
}
