import type { AccessRequestsView, AccessRequestView, MyAccessRequestView } from '#contract/access-views.ts'
import { check } from '#core/access/evaluate.ts'
import { placeOf } from '#core/access/place.ts'
import { allRows, rowOf, rowsBy } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import { isOpen, lacksDecidingAccess, waitsFor } from '#core/changes/edits/access-request.ts'
import { holds } from '#core/levels/action.ts'
import type { AccessRequest } from '#core/people/asking.ts'
import { type Asker, knowsPerson, maySee, nameOf, pathWords } from './asker.ts'

/** What is asked for at places: of the asker, and by the asker. What came another way meanwhile waits no more. */
export function accessRequestsView(asker: Asker): AccessRequestsView {
  const { moment, person } = asker
  return {
    toDecide: toDecide(asker, allRows(moment.state.accessRequests)),
    mine: rowsBy(moment.state.accessRequests, 'person', person)
      .filter(each => !isGiven(asker, each) && (waitsFor(moment, each) || isDeclined(asker, each)))
      .sort((a, b) => b.at - a.at)
      .map(each => mineView(asker, each)),
  }
}

/** Declined, and told so: see `waitsFor`. */
const isDeclined = (asker: Asker, { node, declined }: AccessRequest): boolean =>
  declined !== null && maySee(asker, node)

/** Those that wait at one place. */
export const requestsAt = (asker: Asker, node: NodeId): AccessRequestView[] =>
  toDecide(asker, rowsBy(asker.moment.state.accessRequests, 'node', node))

function toDecide(asker: Asker, requests: readonly AccessRequest[]): AccessRequestView[] {
  const { moment, person: author } = asker
  const context = { author, before: moment, now: moment }
  return requests
    .filter(each => waits(asker, each) && lacksDecidingAccess(context, each.id) === undefined)
    .sort((a, b) => a.at - b.at)
    .map(each => requestView(asker, each))
}

/** Open, and what is asked for is not there yet. */
const waits = (asker: Asker, request: AccessRequest): boolean =>
  isOpen(request, asker.moment.at) && !isGiven(asker, request)

const isGiven = ({ moment }: Asker, { person, node, wants }: AccessRequest): boolean =>
  holds(check(moment, person, node), wants)

function requestView(asker: Asker, { id, person, node, wants, at, word }: AccessRequest): AccessRequestView {
  const { moment } = asker
  return {
    id,
    person: { id: person, name: nameOf(moment, person) },
    isGuest: rowOf(moment.state.persons, person)?.kind === 'guest',
    place: {
      id: node,
      name: rowOf(moment.state.nodes, node)?.name ?? '',
      path: pathWords(asker, placeOf(moment, node)?.path.slice(1) ?? []),
    },
    wants,
    has: check(moment, person, node),
    at,
    word,
  }
}

function mineView(asker: Asker, { id, node, wants, at, word, declined }: AccessRequest): MyAccessRequestView {
  const { moment } = asker
  const isSeen = maySee(asker, node)
  const by = declined !== null && knowsPerson(asker, declined.by) ? nameOf(moment, declined.by) : 'Somebody'
  return {
    id,
    address: node,
    place: isSeen ? { id: node, name: rowOf(moment.state.nodes, node)?.name ?? '' } : null,
    wants,
    at,
    word,
    declined: declined === null || !isSeen ? null : { by, word: declined.word },
  }
}
