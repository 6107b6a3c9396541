import { wholeNumber } from '../pieces.ts'
import { historyQuery, notificationChoiceRequest, readNotificationsRequest } from '../requests.ts'
import type { Route } from '../route.ts'
import { AuditEntryDetailView, HistoryView } from '../views/history.ts'
import { NotificationsView } from '../views/notifications.ts'

const inside =
  'To be in the workspace; told is what concerns one, or all with the privilege to read the history.'

/** What was done, and what one was told of it. */
export const historyRoutes = {
  history: {
    does: 'A part of the history, the newest first.',
    needs: inside,
    query: historyQuery,
    answer: HistoryView,
  },
  auditEntry: {
    does: 'One entry, with its impact.',
    needs: inside,
    params: { revision: wholeNumber },
    answer: AuditEntryDetailView,
  },
  notifications: {
    does: 'What one was told, and how one wants to be told.',
    needs: 'To be in the workspace.',
    answer: NotificationsView,
  },
  readNotifications: {
    does: 'Marks some of one’s notifications, or all, as read or not.',
    needs: 'To be in the workspace.',
    body: readNotificationsRequest,
    answer: NotificationsView,
  },
  chooseNotifications: {
    does: 'Chooses how one is told of a kind of thing.',
    needs: 'To be in the workspace.',
    body: notificationChoiceRequest,
    answer: NotificationsView,
  },
} as const satisfies Readonly<Record<string, Route>>
