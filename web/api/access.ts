import type { GrantsOverviewView, TakenOverView } from '#contract/access-views.ts'
import type { PageView } from '#contract/oversight-views.ts'
import type { PlaceHit } from '#contract/people-views.ts'
import type { GrantsQuery, TakeOverQuery } from '#contract/requests.ts'
import type { OwnAccessView, PersonAccessView } from '#contract/views.ts'
import { api, at, type AtNode } from './api.ts'

const words = (query: Readonly<Record<string, string | undefined>>) =>
  new URLSearchParams(
    Object.entries(query).flatMap(([key, value]) => (value === undefined ? [] : [[key, value]])),
  ).toString()

/** Access over many places, asked for, taken over, and checked. */
const accessApi = api.injectEndpoints({
  endpoints: build => ({
    grants: build.query<GrantsOverviewView, { readonly slug: string } & GrantsQuery>({
      query: ({ slug, ...query }) => ({ path: at(slug, `/grants?${words(query)}`) }),
      providesTags: ['workspace'],
    }),
    takenOver: build.query<TakenOverView, AtNode & TakeOverQuery>({
      query: ({ slug, id, ...query }) => ({ path: at(slug, `/nodes/${id}/access-to-copy?${words(query)}`) }),
      providesTags: ['workspace'],
    }),
    placesToAsk: build.query<PlaceHit[], { readonly slug: string; readonly find: string }>({
      query: ({ slug, find }) => ({ path: at(slug, `/check/places?${words({ find })}`) }),
      providesTags: ['workspace'],
    }),
    goals: build.query<PlaceHit[], AtNode & { readonly find: string }>({
      query: ({ slug, id, find }) => ({ path: at(slug, `/nodes/${id}/move-targets?${words({ find })}`) }),
      providesTags: ['workspace'],
    }),
    whoCan: build.query<PageView<PersonAccessView>, AtNode & { readonly from?: string }>({
      query: ({ slug, id, from }) => ({ path: at(slug, `/nodes/${id}/people?${words({ from })}`) }),
      providesTags: ['workspace'],
    }),
    ownAccess: build.query<OwnAccessView, AtNode>({
      query: ({ slug, id }) => ({ path: at(slug, `/nodes/${id}/own-access`) }),
      providesTags: ['workspace'],
    }),
  }),
})

export const {
  useGrantsQuery,
  useTakenOverQuery,
  usePlacesToAskQuery,
  useGoalsQuery,
  useWhoCanQuery,
  useOwnAccessQuery,
} = accessApi
