import { rowOf, rowsBy } from '../base/collection.ts'
import type { NodeId } from '../base/ids.ts'
import { isLive } from '../base/instant.ts'
import { type ActionSet, noActions } from '../levels/action.ts'
import type { Gives, Grant, Limit } from '../rules/access-entry.ts'
import { type Snapshot, pathOf, type State } from '../state/state.ts'
import type { ContentNode } from '../tree/node.ts'

/** A node as people meet it: every entry on its path that is live, read once and put to many people. */
export interface Place {
  readonly node: ContentNode
  /** From the node up to the root. */
  readonly path: readonly ContentNode[]
  /** Set on the node and above it, up to and including the first node that breaks inheritance. */
  readonly grants: readonly EffectiveGrant[]
  /** Set above that node: a break keeps them out. */
  readonly keptOut: readonly EffectiveGrant[]
  readonly breakAt: ContentNode | undefined
  readonly limits: readonly Limit[]
  /** The node that is archived, or whose team is. */
  readonly archivedAt: ContentNode | undefined
  readonly binnedAt: ContentNode | undefined
}

export interface EffectiveGrant {
  readonly grant: Grant
  readonly actions: ActionSet
}

const known = new WeakMap<Snapshot, Map<NodeId, Place>>()

/**
 * `undefined` if there is no such node. Kept for as long as the snapshot is, and worked out from the place
 * that it stands in: a place with no entries of its own shares all that its parent has.
 */
export function placeOf(snapshot: Snapshot, id: NodeId): Place | undefined {
  const places = known.get(snapshot) ?? new Map<NodeId, Place>()
  known.set(snapshot, places)
  // Up to the nearest place that is known, then down again: without recursion, however deep the tree.
  const missing: ContentNode[] = []
  let next = rowOf(snapshot.state.nodes, id)
  let place: Place | undefined
  for (; next !== undefined; next = above(snapshot, next)) {
    place = places.get(next.id)
    if (place !== undefined) break
    missing.push(next)
  }
  for (let node = missing.pop(); node !== undefined; node = missing.pop()) {
    place = createPlace(snapshot, node, place)
    places.set(node.id, place)
  }
  return place
}

const above = ({ state }: Snapshot, { parent }: ContentNode): ContentNode | undefined =>
  parent === null ? undefined : rowOf(state.nodes, parent)

function createPlace(snapshot: Snapshot, node: ContentNode, parent: Inherited = nowhere): Place {
  const own = liveGrantsAt(snapshot, node.id)
  const isBroken = node.broken !== null
  const limits = rowsBy(snapshot.state.limits, 'node', node.id).filter(each => isLive(each, snapshot.at))
  let path: readonly ContentNode[] | undefined
  return {
    node,
    get path() {
      return (path ??= pathOf(snapshot.state, node.id))
    },
    grants: isBroken ? own : joined(own, parent.grants),
    keptOut: isBroken ? joined(parent.grants, parent.keptOut) : parent.keptOut,
    breakAt: isBroken ? node : parent.breakAt,
    limits: joined(limits, parent.limits),
    archivedAt: node.archived || isTeamArchived(snapshot.state, node) ? node : parent.archivedAt,
    binnedAt: node.binned === null ? parent.binnedAt : node,
  }
}

type Inherited = Omit<Place, 'node' | 'path'>

/** What the root stands in: nothing. */
const nowhere = {
  grants: [],
  keptOut: [],
  breakAt: undefined,
  limits: [],
  archivedAt: undefined,
  binnedAt: undefined,
} as const satisfies Inherited

/** Shares what is there already where nothing is added. */
function joined<T>(first: readonly T[], rest: readonly T[]): readonly T[] {
  if (first.length === 0) return rest
  return rest.length === 0 ? first : [...first, ...rest]
}

/** The largest first, then by id: the same order each time it is told. */
function liveGrantsAt(snapshot: Snapshot, node: NodeId): EffectiveGrant[] {
  return rowsBy(snapshot.state.grants, 'node', node)
    .filter(grant => isLive(grant, snapshot.at))
    .map(grant => ({ grant, actions: actionsGiven(snapshot.state, grant.gives) }))
    .sort((a, b) => b.actions - a.actions || (a.grant.id < b.grant.id ? -1 : 1))
}

/** A level of the workspace's own is looked up: what it holds now counts. */
export function actionsGiven(state: State, gives: Gives): ActionSet {
  return typeof gives === 'number' ? gives : (rowOf(state.levels, gives)?.actions ?? noActions)
}

function isTeamArchived(state: State, node: ContentNode): boolean {
  return node.home?.of === 'team' && rowOf(state.teams, node.home.team)?.archived === true
}
