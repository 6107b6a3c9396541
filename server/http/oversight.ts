import { type Request, Router } from 'express'
import {
  historyQuery,
  notificationChoiceRequest,
  readNotificationsRequest,
  revisionParams,
} from '#contract/requests.ts'
import type { Parts } from '../parts.ts'
import type { Asker } from '../services/asker.ts'
import { auditEntryDetailView, historyView } from '../services/history.ts'
import { chooseNotifications, markNotifications, notificationsView } from '../services/notifications/inbox.ts'
import { checked } from './check.ts'

/** What was done, and what one was told of it. */
export function oversightRoutes(parts: Parts, asker: (request: Request) => Asker): Router {
  const router = Router({ mergeParams: true })
  router.get('/history', async (request, response) => {
    response.json(await historyView(parts, asker(request), checked(historyQuery, request.query)))
  })
  router.get('/history/:revision', async (request, response) => {
    const { revision } = checked(revisionParams, request.params)
    response.json(await auditEntryDetailView(parts, asker(request), Number(revision)))
  })
  router.get('/notifications', async (request, response) => {
    response.json(await notificationsView(parts, asker(request)))
  })
  router.post('/notifications/read', async (request, response) => {
    response.json(
      await markNotifications(parts, asker(request), checked(readNotificationsRequest, request.body)),
    )
  })
  router.put('/notifications/choices', async (request, response) => {
    response.json(
      await chooseNotifications(parts, asker(request), checked(notificationChoiceRequest, request.body)),
    )
  })
  return router
}
