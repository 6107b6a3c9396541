import type { Parts } from '../../parts.ts'
import { ownersView } from '../../services/roles/owners.ts'
import { requestsView } from '../../services/access/requests.ts'
import { holdersView, rolesToAssign, rolesView } from '../../services/roles/roles.ts'
import { seatsView } from '../../services/workspace/seats.ts'
import { viewedView, viewingSessionsView } from '../../services/sessions/viewing-sessions.ts'
import type { WorkspaceHandlers } from '../mount.ts'

/** Roles and who holds them, requests, owners, seats, and viewing sessions. */
export const roleHandlers = (parts: Parts) =>
  ({
    roles: asker => rolesView(asker),
    holders: (asker, { params }) => holdersView(asker, params.id),
    rolesToAssign: (asker, { params }) => rolesToAssign(asker, params.id),
    owners: asker => ownersView(asker),
    seats: asker => seatsView(parts, asker),
    requests: asker => requestsView(asker),
    viewingSessions: asker => viewingSessionsView(parts, asker),
    viewed: (asker, { params, query }) => viewedView(parts, asker, { id: params.id, node: query.node }),
  }) satisfies Partial<WorkspaceHandlers>
