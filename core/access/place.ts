import { rowOf, rowsBy } from '../base/collection.ts'
import type { NodeId } from '../base/ids.ts'
import { isLive } from '../base/instant.ts'
import { type ActionSet, noActions } from '../levels/action.ts'
import type { Gives, Grant, Limit } from '../rules/entry.ts'
import { type Moment, pathOf, type State } from '../state/state.ts'
import type { ContentNode } from '../tree/node.ts'

/** A node as people meet it: every entry on its path that is live, read once and put to many people. */
export interface Place {
  readonly node: ContentNode
  /** From the node up to the root. */
  readonly path: readonly ContentNode[]
  /** Set on the node and above it, up to and including the first node that breaks inheritance. */
  readonly grants: readonly GivenHere[]
  /** Set above that node: a break keeps them out. */
  readonly keptOut: readonly GivenHere[]
  readonly breakAt: ContentNode | undefined
  readonly limits: readonly Limit[]
  /** The node that is archived, or whose team is. */
  readonly archivedAt: ContentNode | undefined
  readonly binnedAt: ContentNode | undefined
}

export interface GivenHere {
  readonly grant: Grant
  readonly actions: ActionSet
}

const known = new WeakMap<Moment, Map<NodeId, Place>>()

/** `undefined` if there is no such node. Kept for as long as the moment is. */
export function placeOf(moment: Moment, id: NodeId): Place | undefined {
  const places = known.get(moment) ?? new Map<NodeId, Place>()
  known.set(moment, places)
  const kept = places.get(id)
  if (kept !== undefined) return kept
  const path = pathOf(moment.state, id)
  const [node] = path
  if (node === undefined) return undefined
  const place = createPlace(moment, node, path)
  places.set(id, place)
  return place
}

function createPlace(moment: Moment, node: ContentNode, path: readonly ContentNode[]): Place {
  const breakAt = path.find(each => each.broken !== null)
  const reach = breakAt === undefined ? path.length : path.indexOf(breakAt) + 1
  return {
    node,
    path,
    grants: path.slice(0, reach).flatMap(each => liveGrantsAt(moment, each.id)),
    keptOut: path.slice(reach).flatMap(each => liveGrantsAt(moment, each.id)),
    breakAt,
    limits: path
      .flatMap(each => rowsBy(moment.state.limits, 'node', each.id))
      .filter(each => isLive(each, moment.at)),
    archivedAt: path.find(each => each.archived || isTeamArchived(moment.state, each)),
    binnedAt: path.find(each => each.binned !== null),
  }
}

/** The largest first, then by id: the same order each time it is told. */
function liveGrantsAt(moment: Moment, node: NodeId): GivenHere[] {
  return rowsBy(moment.state.grants, 'node', node)
    .filter(grant => isLive(grant, moment.at))
    .map(grant => ({ grant, actions: actionsGiven(moment.state, grant.gives) }))
    .sort((a, b) => b.actions - a.actions || (a.grant.id < b.grant.id ? -1 : 1))
}

/** A level of the workspace's own is looked up: what it holds now counts. */
export function actionsGiven(state: State, gives: Gives): ActionSet {
  return typeof gives === 'number' ? gives : (rowOf(state.levels, gives)?.actions ?? noActions)
}

function isTeamArchived(state: State, node: ContentNode): boolean {
  return node.home?.of === 'team' && rowOf(state.teams, node.home.team)?.archived === true
}
