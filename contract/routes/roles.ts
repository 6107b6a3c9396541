import { Type } from '@sinclair/typebox'
import { outlineQuery } from '../requests.ts'
import type { Route } from '../route.ts'
import { RequestsView } from '../views/requests.ts'
import { HolderView, OwnersView, RolesView, RoleToAssignView, SeatsView } from '../views/roles.ts'
import { ViewedView, ViewingSessionsView } from '../views/viewing.ts'

const viewing = 'The privilege to view roles.'

/** Roles and who holds them, requests, owners, seats, and viewing sessions. */
export const roleRoutes = {
  roles: { does: 'The roles, with what they let do.', needs: viewing, answer: RolesView },
  holders: { does: 'Who holds a role.', needs: viewing, answer: Type.Array(HolderView) },
  rolesToAssign: {
    does: 'The roles that one may assign to somebody, and over what.',
    needs: 'The privilege to assign roles.',
    answer: Type.Array(RoleToAssignView),
  },
  owners: { does: 'The owners, and who was offered to be one.', needs: 'To be owner.', answer: OwnersView },
  seats: { does: 'Seats: bought, taken, by whom.', needs: 'A privilege about seats.', answer: SeatsView },
  requests: {
    does: 'What is asked of one, and what one asked for.',
    needs: 'To be in the workspace.',
    answer: RequestsView,
  },
  viewingSessions: {
    does: 'Who sees, or saw, by a privilege what they else would not.',
    needs: 'The privilege to see as others or the outline, or the history.',
    answer: ViewingSessionsView,
  },
  viewed: {
    does: 'A place as an open session shows it.',
    needs: 'One’s own open session.',
    query: outlineQuery,
    answer: ViewedView,
  },
} as const satisfies Readonly<Record<string, Route>>
