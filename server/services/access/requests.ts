import type {
  AccessWantedView,
  MyRequestView,
  MyWantedView,
  RequestView,
  RequestsView,
  RoleWantedView,
  TeamWantedView,
  WantedView,
} from '#contract/views/requests.ts'
import { check } from '#core/access/evaluate.ts'
import { placeOf } from '#core/access/place.ts'
import { powersOf } from '#core/access/powers.ts'
import { allRows, rowOf, rowsBy } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import { isGiven, waits } from '#core/changes/requests/for-access.ts'
import { lacksDeciding, ruleFor } from '#core/changes/requests/rules.ts'
import {
  type AccessRequest,
  isForAccess,
  type RequestFor,
  type Wanted,
  type WantedOf,
} from '#core/people/request.ts'
import { guestRole } from '#core/people/role.ts'
import { type Asker, asks, knowsPerson, maySee, nameOf, pathWords } from '../viewer/asker.ts'

/** What is asked of the asker, and by the asker. What came another way meanwhile waits no more. */
export function requestsView(asker: Asker): RequestsView {
  const { state } = asker.snapshot
  return {
    toDecide: toDecide(asker, allRows(state.requests)).map(each => requestView(asker, each)),
    mine: rowsBy(state.requests, 'person', asker.person)
      .filter(each => !isForAccess(each) || isMineToTell(asker, each))
      .sort((a, b) => b.at - a.at)
      .map(each => mineView(asker, each)),
    roles: rolesToAskFor(asker),
  }
}

/** Those for access that wait at one place. */
export const requestsAt = (asker: Asker, node: NodeId): RequestView<AccessWantedView>[] =>
  toDecide(asker, rowsBy(asker.snapshot.state.requests, 'wanted', node).filter(isForAccess)).map(each => ({
    ...askedView(asker, each),
    wants: accessWanted(asker, each),
  }))

function toDecide<R extends RequestFor>(asker: Asker, requests: readonly R[]): R[] {
  const { snapshot, person: author } = asker
  const context = { author, before: snapshot, now: snapshot }
  return requests
    .filter(each => isOpen(asker, each) && lacksDeciding(context, each.id) === undefined)
    .sort((a, b) => a.at - b.at)
}

/** Open, and what is asked for is not there yet. */
const isOpen = ({ snapshot }: Asker, request: RequestFor): boolean =>
  ruleFor(request.wants).isOpen(request, snapshot.at) && !(isForAccess(request) && isGiven(snapshot, request))

/** It waits, or was declined and its asker is told so: see `waits`. */
const isMineToTell = (asker: Asker, request: AccessRequest): boolean =>
  !isGiven(asker.snapshot, request) &&
  (waits(asker.snapshot, request) || (request.declined !== null && maySee(asker, request.wants.node)))

const requestView = (asker: Asker, request: RequestFor): RequestView => ({
  ...askedView(asker, request),
  wants: wantedView(asker, request),
})

const askedView = ({ snapshot }: Asker, { id, person, at, reason }: RequestFor) => ({
  id,
  person: { id: person, name: nameOf(snapshot, person) },
  isGuest: rowOf(snapshot.state.persons, person)?.kind === 'guest',
  at,
  reason,
})

const wantedView = (asker: Asker, request: RequestFor): WantedView =>
  isForAccess(request) ? accessWanted(asker, request) : teamOrRole(asker, request.wants as TeamOrRole)

function accessWanted(asker: Asker, { person, wants }: AccessRequest): AccessWantedView {
  const { snapshot } = asker
  const { of, node, actions } = wants
  const path = pathWords(asker, placeOf(snapshot, node)?.path.slice(1) ?? [])
  return { of, place: { ...placeName(asker, node), path }, actions, has: check(snapshot, person, node) }
}

const placeName = ({ snapshot }: Asker, id: NodeId) => ({
  id,
  name: rowOf(snapshot.state.nodes, id)?.name ?? '',
})

type TeamOrRole = WantedOf<Exclude<Wanted['of'], 'access'>>

/** By its name: whoever asked for it knew of it, and whoever decides may give it. */
function teamOrRole({ snapshot: { state } }: Asker, wants: TeamOrRole): TeamWantedView | RoleWantedView {
  switch (wants.of) {
    case 'team':
      return { of: 'team', team: { id: wants.team, name: rowOf(state.teams, wants.team)?.name ?? 'a team' } }
    case 'role':
      return { of: 'role', role: { id: wants.role, name: rowOf(state.roles, wants.role)?.name ?? 'a role' } }
    case 'privilege':
      return wants
  }
}

function mineView(asker: Asker, request: RequestFor): MyRequestView {
  const { id, at, reason, declined } = request
  const by =
    declined !== null && knowsPerson(asker, declined.by) ? nameOf(asker.snapshot, declined.by) : 'Somebody'
  const isTold = !isForAccess(request) || maySee(asker, request.wants.node)
  return {
    id,
    wants: myWanted(asker, request),
    at,
    reason,
    declined: declined === null || !isTold ? null : { by, comment: declined.comment },
  }
}

function myWanted(asker: Asker, request: RequestFor): MyWantedView {
  if (!isForAccess(request)) return teamOrRole(asker, request.wants as TeamOrRole)
  const { node, actions } = request.wants
  return { of: 'access', address: node, place: maySee(asker, node) ? placeName(asker, node) : null, actions }
}

/** Roles that the asker knows of and does not have. */
function rolesToAskFor(asker: Asker): RequestsView['roles'] {
  if (!asks(asker, 'view roles') || asker.subject.person.kind !== 'member') return []
  const held = new Set(powersOf(asker.snapshot, asker.person).map(power => power.role))
  return allRows(asker.snapshot.state.roles)
    .filter(role => role.id !== guestRole && !held.has(role.id))
    .sort((a, b) => a.rank - b.rank)
    .map(({ id, name }) => ({ id, name }))
}
