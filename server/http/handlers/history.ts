import type { Parts } from '../../parts.ts'
import { auditEntryDetailView, historyView } from '../../services/oversight/history.ts'
import {
  chooseNotifications,
  markNotifications,
  notificationsView,
} from '../../services/notifications/inbox.ts'
import type { WorkspaceHandlers } from '../mount.ts'

/** What was done, and what one was told of it. */
export const historyHandlers = (parts: Parts) =>
  ({
    history: (asker, { query }) => historyView(parts, asker, query),
    auditEntry: (asker, { params }) => auditEntryDetailView(parts, asker, Number(params.revision)),
    notifications: asker => notificationsView(parts, asker),
    readNotifications: (asker, { body }) => markNotifications(parts, asker, body),
    chooseNotifications: (asker, { body }) => chooseNotifications(parts, asker, body),
  }) satisfies Partial<WorkspaceHandlers>
