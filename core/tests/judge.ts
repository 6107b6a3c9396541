import { allRows, rowOf } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Span } from '../base/instant.ts'
import { type Action, allActions, has, listActions } from '../levels/action.ts'
import { actionsGiven } from '../access/place.ts'
import type { Person } from '../people/person.ts'
import type { Principal } from '../rules/principal.ts'
import { type Moment, type State, workspaceOf } from '../state/state.ts'
import type { ContentNode } from '../tree/node.ts'

/**
 * The access model once more, slow and plain: written from docs/access-model.md and not from the engine,
 * over lists of names, with no index, no bits and no cache. The engine has to agree with it.
 */
export function judged(
  { state, at }: Moment,
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
        for (const action of listActions(actionsGiven(state, grant.gives))) given.add(action)
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

function ancestry(state: State, node: ContentNode): ContentNode[] {
  const parent = node.parent === null ? undefined : rowOf(state.nodes, node.parent)
  return parent === undefined ? [node] : [node, ...ancestry(state, parent)]
}

function matches({ state, at }: Moment, person: Person, principal: Principal): boolean {
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
