import { type Request, Router } from 'express'
import { historyQuery, noticeChoiceRequest, readNoticesRequest, revisionParams } from '#contract/requests.ts'
import type { Parts } from '../parts.ts'
import type { Asker } from '../services/asker.ts'
import { entryDetailView, historyView } from '../services/history.ts'
import { chooseNotices, markNotices, noticesView } from '../services/notices/inbox.ts'
import { checked } from './check.ts'

/** What was done, and what one was told of it. */
export function oversightRoutes(parts: Parts, asker: (request: Request) => Asker): Router {
  const router = Router({ mergeParams: true })
  router.get('/history', async (request, response) => {
    response.json(await historyView(parts, asker(request), checked(historyQuery, request.query)))
  })
  router.get('/history/:revision', async (request, response) => {
    const { revision } = checked(revisionParams, request.params)
    response.json(await entryDetailView(parts, asker(request), Number(revision)))
  })
  router.get('/notices', async (request, response) => {
    response.json(await noticesView(parts, asker(request)))
  })
  router.post('/notices/read', async (request, response) => {
    response.json(await markNotices(parts, asker(request), checked(readNoticesRequest, request.body)))
  })
  router.put('/notices/choices', async (request, response) => {
    response.json(await chooseNotices(parts, asker(request), checked(noticeChoiceRequest, request.body)))
  })
  return router
}
