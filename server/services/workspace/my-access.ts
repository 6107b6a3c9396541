import type { MyAccessView } from '#contract/views/people.ts'
import { rowsBy, rowOf, allRows } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import { isLive, type Instant } from '#core/base/instant.ts'
import { personPrincipal } from '#core/rules/principal.ts'
import type { Parts } from '../../parts.ts'
import { reachedBy, heldBy } from '../access/accessible-places.ts'
import { type Asker, nameOf } from '../viewer/asker.ts'
import { handoverView } from '../roles/owners.ts'
import { holdingView, personTeams } from '../people/people.ts'
import { viewingSessionView } from '../sessions/viewing-session.ts'
import { visiblePlaces } from '../../worker/by-id.ts'

/** One's own roles, teams and places, and by what one has each. */
export async function myAccessView(parts: Parts, asker: Asker): Promise<MyAccessView> {
  const { snapshot, subject } = asker
  const { contact, invitedBy, from, until } = subject.person
  const reached = await reachedBy(asker, subject, {
    visible: await visiblePlaces(parts.thread, asker),
    mayTell: () => true,
  })
  return {
    roles: rowsBy(snapshot.state.holdings, 'person', asker.person)
      .filter(holding => isLive(holding, snapshot.at))
      .map(holding => {
        const role = rowOf(snapshot.state.roles, holding.role)
        return {
          ...holdingView(asker, holding),
          note: role?.note ?? '',
          ...(role === undefined ? { privileges: [], asleep: [] } : heldBy(role, holding)),
        }
      }),
    handovers: allRows(snapshot.state.handovers)
      .filter(each => each.to === asker.person)
      .map(each => handoverView(asker, each)),
    viewingSessions: rowsBy(snapshot.state.viewingSessions, 'through', asker.person)
      .sort((a, b) => b.at - a.at)
      .map(each => viewingSessionView(parts, asker, each)),
    teams: personTeams(asker, subject.person),
    places: reached.map(place => ({ ...place, until: ownEnd(asker, place.id as NodeId) })),
    contact: contact === null ? null : { id: contact, name: nameOf(snapshot, contact) },
    // The invitation told it.
    invitedBy: invitedBy === null ? null : nameOf(snapshot, invitedBy),
    from,
    until,
  }
}

/** When the last of what was given to the asker by name at a place ends; `null` where nothing is, or one has no end. */
export function ownEnd({ snapshot, person }: Asker, node: NodeId): Instant | null {
  const ends = rowsBy(snapshot.state.grants, 'principal', personPrincipal(person))
    .filter(grant => grant.node === node && isLive(grant, snapshot.at))
    .map(grant => grant.until ?? Number.POSITIVE_INFINITY)
  const last = Math.max(...ends)
  return Number.isFinite(last) ? last : null
}
