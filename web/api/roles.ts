import { api, query } from './api.ts'

/** Roles and who holds them, owners, seats, and viewing sessions. */
const rolesApi = api.injectEndpoints({
  endpoints: build => ({
    roles: query(build, 'roles'),
    holders: query(build, 'holders'),
    rolesToAssign: query(build, 'rolesToAssign'),
    owners: query(build, 'owners'),
    seats: query(build, 'seats'),
    viewingSessions: query(build, 'viewingSessions'),
    viewed: query(build, 'viewed'),
  }),
})

export const {
  useRolesQuery,
  useHoldersQuery,
  useRolesToAssignQuery,
  useOwnersQuery,
  useSeatsQuery,
  useViewingSessionsQuery,
  useViewedQuery,
} = rolesApi
