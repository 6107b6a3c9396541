import { api, mutation, query } from './api.ts'

/** What was done, and what one was told of it. */
const oversightApi = api.injectEndpoints({
  endpoints: build => ({
    history: query(build, 'history'),
    auditEntry: query(build, 'auditEntry'),
    notifications: query(build, 'notifications'),
    readNotifications: mutation(build, 'readNotifications', ['notifications']),
    chooseNotifications: mutation(build, 'chooseNotifications', ['notifications']),
  }),
})

export const {
  useHistoryQuery,
  useAuditEntryQuery,
  useNotificationsQuery,
  useReadNotificationsMutation,
  useChooseNotificationsMutation,
} = oversightApi
