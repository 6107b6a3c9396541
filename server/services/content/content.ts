import type { BinnedView, NodeView, PlaceHit, TreeItem, TreeView } from '#contract/views/content.ts'
import type { PathView } from '#contract/views/names.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import { check, seesWithin } from '#core/access/evaluate.ts'
import { isPublic } from '#core/access/public.ts'
import { archiveTime } from '#core/changes/edits/delete.ts'
import { type Instant, isOver } from '#core/base/instant.ts'
import { binTime } from '#core/state/dates.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import type { NodeId } from '#core/base/ids.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { childrenOf, pathOf, privateFolderOf } from '#core/state/state.ts'
import { personPrincipal } from '#core/rules/principal.ts'
import { type ContentNode, kindsWithin } from '#core/tree/node.ts'
import type { Parts } from '../../parts.ts'
import {
  type Asker,
  holdsAt,
  knowsPerson,
  nameOf,
  pathWords,
  visiblePath,
  visiblePlace,
} from '../viewer/asker.ts'
import { findPlaces } from '../viewer/place-search.ts'
import { visibleRoots } from '../../worker/by-id.ts'

/**
 * The tree as its reader finds it. Homes stand at the top for members; whatever else is seen without
 * its parent, and all that a guest sees, stands under "Shared with me".
 */
export async function treeView(parts: Parts, asker: Asker): Promise<TreeView> {
  const { snapshot, subject } = asker
  const { nodes } = snapshot.state
  const kept = privateFolderOf(snapshot.state, asker.person)
  const roots: TreeItem[] = []
  for (const id of await visibleRoots(parts.thread, asker)) {
    const node = rowOf(nodes, id) as ContentNode
    if (node.id !== kept?.id) roots.push(seenItem(asker, node) as TreeItem)
  }
  roots.sort((a, b) => compareWords(a.name, b.name))
  const standsAtTop = (item: TreeItem) => !subject.isGuest && (item.home === 'team' || item.home === 'shared')
  return {
    kept: kept === undefined ? null : seenItem(asker, kept),
    opened: roots.filter(item => !standsAtTop(item)),
    homes: roots.filter(standsAtTop),
  }
}

export function nodeView(asker: Asker, id: string): NodeView {
  const { place, actions } = visiblePlace(asker, id)
  const { node } = place
  const children = node.kind === 'board' ? [] : visibleChildren(asker, node.id)
  return {
    ...itemOf(asker, node, actions),
    note: node.note,
    path: visiblePath(asker, place.path.slice(1)),
    children,
    limited: children
      .filter(child => has(child.actions as ActionSet, 'share') && isLimited(asker, child))
      .map(({ id }) => id),
    madeBy: knowsPerson(asker, node.maker) ? nameOf(asker.snapshot, node.maker) : null,
    madeAt: node.madeAt,
    mayRemove: holdsAt(asker, node.id, 'remove') && node.home?.of !== 'person',
    deletableFrom: deletableFrom(asker, node),
    isPublic: isPublic(asker.snapshot, place),
    mine: rowsBy(asker.snapshot.state.grants, 'principal', personPrincipal(asker.person))
      .filter(grant => grant.node === node.id)
      .map(grant => grant.id),
  }
}

/** Shared homes are not binned: they go for good from the archive. */
function deletableFrom(asker: Asker, { id, home, archivedAt }: ContentNode): Instant | null {
  const isDeletable = home?.of === 'shared' && archivedAt !== null && holdsAt(asker, id, 'seal')
  return isDeletable ? archivedAt + archiveTime : null
}

/** Where a place could be moved to, by a part of the name: what may hold it, and where the asker may add. */
export function moveTargets(asker: Asker, id: string, find: string): Promise<PlaceHit[]> {
  const { node } = visiblePlace(asker, id).place
  const isOwn = (goal: NodeId) => pathOf(asker.snapshot.state, goal).some(each => each.id === node.id)
  return findPlaces(asker, {
    find,
    may: (_, actions) => has(actions, 'add'),
    fits: goal => goal.id !== node.parent && kindsWithin(goal.kind).includes(node.kind) && !isOwn(goal.id),
  })
}

/** What lies in the bin and the asker could bring back: not what only lies in it with something else. */
export function binView(asker: Asker): BinnedView[] {
  return rowsBy(asker.snapshot.state.nodes, 'bin', 'bin')
    .filter(node => holdsAt(asker, node.id, 'remove'))
    .flatMap(node => {
      const above = pathOf(asker.snapshot.state, node.id).slice(1)
      return above.some(each => each.binned !== null) ? [] : [binnedView(asker, node, above)]
    })
    .sort((a, b) => compareWords(a.name, b.name))
}

function binnedView(asker: Asker, node: ContentNode, above: readonly ContentNode[]): BinnedView {
  const { by, at } = node.binned ?? { by: node.maker, at: asker.snapshot.at }
  return {
    ...pathView(asker, node, above),
    by: knowsPerson(asker, by) ? nameOf(asker.snapshot, by) : 'somebody',
    at,
    until: at + binTime,
    mayDelete: holdsAt(asker, node.id, 'seal'),
  }
}

const pathView = (asker: Asker, { id, name }: ContentNode, above: readonly ContentNode[]): PathView => ({
  id,
  name,
  path: pathWords(asker, above),
})

const isLimited = ({ snapshot: { state, at } }: Asker, { id }: TreeItem): boolean =>
  rowsBy(state.limits, 'node', id as NodeId).some(limit => !isOver(limit, at))

/** What of a node's children the asker sees, in the order in which they are shown. */
export function visibleChildren(asker: Asker, node: NodeId): TreeItem[] {
  return childrenOf(asker.snapshot.state, node).flatMap(child => seenItem(asker, child) ?? [])
}

function seenItem(asker: Asker, node: ContentNode): TreeItem | null {
  const actions = check(asker.snapshot, asker.person, node.id)
  return has(actions, 'see') ? itemOf(asker, node, actions) : null
}

const itemOf = (asker: Asker, node: ContentNode, actions: ActionSet): TreeItem => ({
  id: node.id,
  name: node.name,
  kind: node.kind,
  actions,
  // Rows are looked at on their board, which may have a hundred thousand.
  hasChildren: node.kind !== 'board' && seesWithin(asker.snapshot, asker.person, node.id),
  isBroken: node.broken !== null,
  isDraft: node.draft,
  isArchived: node.archived,
  web: node.web,
  home: node.home?.of ?? null,
  order: node.order,
})
