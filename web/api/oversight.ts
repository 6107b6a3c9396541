import type { HistoryQuery, NoticeChoiceRequest, ReadNoticesRequest } from '#contract/requests.ts'
import type { EntryDetailView, HistoryView, NoticesView } from '#contract/oversight-views.ts'
import { api, at, ofWorkspace, post } from './api.ts'

/** What was done, and what one was told of it. */
export const oversight = api.injectEndpoints({
  endpoints: build => ({
    history: build.query<HistoryView, { readonly slug: string } & HistoryQuery>({
      query: ({ slug, ...query }) => ({
        path: at(slug, `/history?${new URLSearchParams(query).toString()}`),
      }),
      providesTags: ['workspace'],
    }),
    entry: build.query<EntryDetailView, { readonly slug: string; readonly revision: string }>({
      query: ({ slug, revision }) => ({ path: at(slug, `/history/${revision}`) }),
      providesTags: ['workspace'],
    }),
    notices: build.query<NoticesView, string>(ofWorkspace('/notices')),
    readNotices: build.mutation<NoticesView, { readonly slug: string } & ReadNoticesRequest>({
      query: ({ slug, ...body }) => post(at(slug, '/notices/read'), body),
      invalidatesTags: ['workspace'],
    }),
    chooseNotices: build.mutation<NoticesView, { readonly slug: string } & NoticeChoiceRequest>({
      query: ({ slug, ...body }) => ({ path: at(slug, '/notices/choices'), method: 'PUT', body }),
      invalidatesTags: ['workspace'],
    }),
  }),
})

export const {
  useHistoryQuery,
  useEntryQuery,
  useNoticesQuery,
  useReadNoticesMutation,
  useChooseNoticesMutation,
} = oversight
