import type { HistoryQuery, NotificationChoiceRequest, ReadNotificationsRequest } from '#contract/requests.ts'
import type { AuditEntryDetailView, HistoryView, NotificationsView } from '#contract/oversight-views.ts'
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
    entry: build.query<AuditEntryDetailView, { readonly slug: string; readonly revision: string }>({
      query: ({ slug, revision }) => ({ path: at(slug, `/history/${revision}`) }),
      providesTags: ['workspace'],
    }),
    notifications: build.query<NotificationsView, string>(ofWorkspace('/notifications')),
    readNotifications: build.mutation<
      NotificationsView,
      { readonly slug: string } & ReadNotificationsRequest
    >({
      query: ({ slug, ...body }) => post(at(slug, '/notifications/read'), body),
      invalidatesTags: ['workspace'],
    }),
    chooseNotifications: build.mutation<
      NotificationsView,
      { readonly slug: string } & NotificationChoiceRequest
    >({
      query: ({ slug, ...body }) => ({ path: at(slug, '/notifications/choices'), method: 'PUT', body }),
      invalidatesTags: ['workspace'],
    }),
  }),
})

export const {
  useHistoryQuery,
  useEntryQuery,
  useNotificationsQuery,
  useReadNotificationsMutation,
  useChooseNotificationsMutation,
} = oversight
