import type {
  HolderView,
  ViewedView,
  ViewingSessionsView,
  OwnersView,
  RolesView,
  RoleToGiveView,
  SeatsView,
} from '#contract/role-views.ts'
import { api, at, ofWorkspace } from './api.ts'

interface AtId {
  readonly slug: string
  readonly id: string
}

/** Roles and who holds them, what is asked for, owners, seats, and looking by privilege. */
export const roles = api.injectEndpoints({
  endpoints: build => ({
    roles: build.query<RolesView, string>(ofWorkspace('/roles')),
    holders: build.query<HolderView[], AtId>({
      query: ({ slug, id }) => ({ path: at(slug, `/roles/${id}/holders`) }),
      providesTags: ['workspace'],
    }),
    rolesToGive: build.query<RoleToGiveView[], AtId>({
      query: ({ slug, id }) => ({ path: at(slug, `/people/${id}/roles-to-give`) }),
      providesTags: ['workspace'],
    }),
    owners: build.query<OwnersView, string>(ofWorkspace('/owners')),
    seats: build.query<SeatsView, string>(ofWorkspace('/seats')),
    viewingSessions: build.query<ViewingSessionsView, string>(ofWorkspace('/sessions')),
    viewed: build.query<ViewedView, AtId & { readonly node?: string }>({
      query: ({ slug, id, node }) => ({
        path: at(slug, `/sessions/${id}${node === undefined ? '' : `?node=${node}`}`),
      }),
      providesTags: ['workspace'],
    }),
  }),
})

export const {
  useRolesQuery,
  useHoldersQuery,
  useRolesToGiveQuery,
  useOwnersQuery,
  useSeatsQuery,
  useViewingSessionsQuery,
  useViewedQuery,
} = roles
