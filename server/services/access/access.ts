import { ownPlacesBelow } from '#core/access/by-id.ts'
import type { AccessView, GrantView, LimitView, PersonAccessView } from '#contract/views/access.ts'
import type { PlaceName, PrincipalName } from '#contract/views/names.ts'
import { actionsAt } from '#core/access/evaluate.ts'
import { givenTo, holdsBack } from '#core/access/matching.ts'
import { actionsGiven, type Place } from '#core/access/place.ts'
import { subjectOf } from '#core/access/subject.ts'
import { countActive, who } from '#core/access/who.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import { isOver } from '#core/base/instant.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { has, intersect } from '#core/levels/action.ts'
import type { Grant, Limit } from '#core/rules/access-entry.ts'
import { partsOf, personPrincipal } from '#core/rules/principal.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { applyChanges } from '#core/state/state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import { requestsAt } from './requests.ts'
import { ownAccessBelow } from './own-access.ts'
import { type Asker, maySee, nameOf, placeName, visiblePlace } from '../viewer/asker.ts'
import { principalName } from '../viewer/principal.ts'

/**
 * Who has access at a place, as far as the asker may know: with share there all of it; with comment the
 * names; with less one's own line and how many can read it.
 */
export async function accessView(asker: Asker, id: string): Promise<AccessView> {
  const { place, actions } = visiblePlace(asker, id)
  if (has(actions, 'share')) {
    return {
      detail: 'all',
      grants: grantsAt(asker, place),
      ...peopleAt(asker, place),
      limits: place.limits.map(limit => limitView(asker, place, limit)),
      ...(await ownAccessBelow(asker, place)),
      ...inheritanceOf(asker, place),
      watch:
        rowsBy(asker.snapshot.state.watches, 'person', asker.person).find(each => each.node === id)?.id ??
        null,
      requests: requestsAt(asker, place.node.id),
      published: publishedFrom(asker, place),
    }
  }
  if (has(actions, 'comment')) return { detail: 'names', names: namesAt(asker, place), mine: actions }
  const contact = asker.subject.person.contact
  return {
    detail: 'own',
    mine: actions,
    readers: countActive(asker.snapshot, place.node.id),
    contact: contact === null ? null : nameOf(asker.snapshot, contact),
  }
}

/** Where what comes from above is stopped, and what there is above as far as the asker may know. */
function inheritanceOf(asker: Asker, { node, breakAt }: Place) {
  const { broken, parent } = node
  return {
    brokenAt: breakAt === undefined ? null : placeName(asker, breakAt.id),
    broken: broken === null ? null : { by: nameOf(asker.snapshot, broken.by), at: broken.at },
    above: parent === null ? null : placeName(asker, parent),
  }
}

function publishedFrom(asker: Asker, { node }: Place): PlaceName[] {
  const { state } = asker.snapshot
  return [...ownPlacesBelow(state, node.id, true)]
    .flatMap(each => (each.isPublished ? [rowOf(state.nodes, each.id) as ContentNode] : []))
    .filter(each => each.web === 'published' && maySee(asker, each.id))
    .map(({ id, name }) => ({ id, name }))
}

/** What is given here and from above, live or still to begin; the nearest first. */
function grantsAt(asker: Asker, place: Place): GrantView[] {
  const { state, at } = asker.snapshot
  const reach = place.breakAt === undefined ? place.path.length : place.path.indexOf(place.breakAt) + 1
  return place.path
    .slice(0, reach)
    .flatMap(node => rowsBy(state.grants, 'node', node.id))
    .filter(grant => !isOver(grant, at))
    .map(grant => grantView(asker, place.node.id, grant))
    .sort(
      (a, b) => Number(b.isHere) - Number(a.isHere) || order(a) - order(b) || compareWords(a.name, b.name),
    )
}

export const order = (each: PrincipalName) =>
  ['everyone', 'team', 'leads', 'member', 'guest'].indexOf(each.kind)

export function grantView(asker: Asker, node: NodeId, grant: Grant): GrantView {
  const { snapshot } = asker
  return {
    ...principalName(asker, grant.principal),
    id: grant.id,
    actions: actionsGiven(snapshot.state, grant.gives),
    gives: grant.gives,
    at: placeName(asker, grant.node),
    isHere: grant.node === node,
    from: grant.from,
    until: grant.until,
    by: nameOf(snapshot, grant.by),
    since: grant.at,
    isWaiting: grant.from !== null && grant.from > snapshot.at,
  }
}

function limitView(asker: Asker, place: Place, limit: Limit): LimitView {
  const { id, allows, sparesStewards, from, until, at: since } = limit
  return {
    ...principalName(asker, limit.principal),
    id,
    allows,
    sparesStewards,
    from,
    until,
    since,
    by: nameOf(asker.snapshot, limit.by),
    at: placeName(asker, limit.node),
    isHere: limit.node === place.node.id,
    ...heldBy(asker, place, limit),
  }
}

/** Whom a limit takes something from here and now, and how many stewards it would but spares. */
function heldBy({ snapshot }: Asker, place: Place, limit: Limit) {
  const lifted = applyChanges(snapshot.state, [{ table: 'limits', id: limit.id, before: limit, after: null }])
  const holds: PlaceName[] = []
  let spares = 0
  // Only who would have something without it can be held or spared.
  for (const { person, actions, isActive } of who(snapshotOf(lifted, snapshot.at), place.node.id)) {
    const subject = subjectOf(snapshot, person.id)
    if (!isActive || subject?.principals.has(limit.principal) !== true) continue
    const given = givenTo(subject, place.grants)
    if (!holdsBack(limit, subject, given)) spares += intersect(given, limit.allows) === given ? 0 : 1
    else if (actions !== actionsAt(snapshot, subject, place))
      holds.push({ id: person.id, name: nameOf(snapshot, person.id) })
  }
  return { holds: holds.sort((a, b) => compareWords(a.name, b.name)), spares }
}

/** So many are named at once: where everybody can open a place, thousands could be. */
const namedAtMost = 100

function peopleAt(asker: Asker, place: Place) {
  const { memberships } = asker.snapshot.state
  const teams = new Set(
    place.grants.flatMap(({ grant }) => {
      const parts = partsOf(grant.principal)
      return 'team' in parts ? [parts.team] : []
    }),
  )
  const isInTeam = ({ id }: PersonAccessView) =>
    rowsBy(memberships, 'person', id as PersonId).some(each => teams.has(each.team))
  const people = everybodyAt(asker, place)
  return {
    people: people.slice(0, namedAtMost),
    peopleCount: people.length,
    inTeams: people.slice(namedAtMost).filter(isInTeam),
  }
}

function everybodyAt(asker: Asker, place: Place): PersonAccessView[] {
  return who(asker.snapshot, place.node.id)
    .map(({ person, actions }) => ({
      id: person.id,
      name: nameOf(asker.snapshot, person.id),
      kind: person.kind,
      status: person.status,
      actions,
    }))
    .sort((a, b) => b.actions - a.actions || compareWords(a.name, b.name))
}

function namesAt(asker: Asker, place: Place): PrincipalName[] {
  const principals = new Set(place.grants.map(each => each.grant.principal))
  principals.delete(personPrincipal(asker.person))
  return [...principals]
    .map(principal => principalName(asker, principal))
    .sort((a, b) => order(a) - order(b) || compareWords(a.name, b.name))
}
