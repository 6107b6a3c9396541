import { rowsBy } from '../../base/collection.ts'
import type { NodeId, PersonId, TeamId } from '../../base/ids.ts'
import { type AccessRequest, isForAccess, isForTeam, type TeamRequest } from '../../people/request.ts'
import type { State } from '../../state/state.ts'

/** What somebody asked for. At most one to join a team, or for access to a place. */

export const teamRequestOf = (state: State, team: TeamId, person: PersonId): TeamRequest | undefined =>
  rowsBy(state.requests, 'person', person)
    .filter(isForTeam)
    .find(each => each.wants.team === team)

export const accessRequestOf = (state: State, node: NodeId, person: PersonId): AccessRequest | undefined =>
  rowsBy(state.requests, 'person', person)
    .filter(isForAccess)
    .find(each => each.wants.node === node)
