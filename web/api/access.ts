import type { GivenView, TakenOverView } from '#contract/access-views.ts'
import type { PageView } from '#contract/oversight-views.ts'
import type { FoundPlaceView } from '#contract/people-views.ts'
import type { GivenQuery, TakeOverQuery } from '#contract/requests.ts'
import type { ExceptionsView, ReachView } from '#contract/views.ts'
import { api, at, type AtNode } from './api.ts'

const words = (query: Readonly<Record<string, string | undefined>>) =>
  new URLSearchParams(
    Object.entries(query).flatMap(([key, value]) => (value === undefined ? [] : [[key, value]])),
  ).toString()

/** Access over many places, asked for, taken over, and checked. */
const accessApi = api.injectEndpoints({
  endpoints: build => ({
    given: build.query<GivenView, { readonly slug: string } & GivenQuery>({
      query: ({ slug, ...query }) => ({ path: at(slug, `/given?${words(query)}`) }),
      providesTags: ['workspace'],
    }),
    takenOver: build.query<TakenOverView, AtNode & TakeOverQuery>({
      query: ({ slug, id, ...query }) => ({ path: at(slug, `/nodes/${id}/taken-over?${words(query)}`) }),
      providesTags: ['workspace'],
    }),
    placesToAsk: build.query<FoundPlaceView[], { readonly slug: string; readonly find: string }>({
      query: ({ slug, find }) => ({ path: at(slug, `/places-to-ask?${words({ find })}`) }),
      providesTags: ['workspace'],
    }),
    goals: build.query<FoundPlaceView[], AtNode & { readonly find: string }>({
      query: ({ slug, id, find }) => ({ path: at(slug, `/nodes/${id}/goals?${words({ find })}`) }),
      providesTags: ['workspace'],
    }),
    whoCan: build.query<PageView<ReachView>, AtNode & { readonly from?: string }>({
      query: ({ slug, id, from }) => ({ path: at(slug, `/nodes/${id}/people?${words({ from })}`) }),
      providesTags: ['workspace'],
    }),
    exceptions: build.query<ExceptionsView, AtNode>({
      query: ({ slug, id }) => ({ path: at(slug, `/nodes/${id}/exceptions`) }),
      providesTags: ['workspace'],
    }),
  }),
})

export const {
  useGivenQuery,
  useTakenOverQuery,
  usePlacesToAskQuery,
  useGoalsQuery,
  useWhoCanQuery,
  useExceptionsQuery,
} = accessApi
