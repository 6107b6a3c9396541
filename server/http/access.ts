import { type Request, Router } from 'express'
import {
  draftRequest,
  addToDraftRequest,
  grantsQuery,
  handOverRequest,
  idParams,
  placesQuery,
  takeOverQuery,
} from '#contract/requests.ts'
import type { Parts } from '../parts.ts'
import { type Asker, checking } from '../services/asker.ts'
import {
  changeDraft,
  draftItems,
  draftsView,
  draftView,
  dropDraft,
  addToDraft,
  handOverDraft,
  recipientsView,
} from '../services/drafts.ts'
import { grantsOverview, takenOverView } from '../services/grants-overview.ts'
import { placesToAsk } from '../services/questions.ts'
import { checked, checkedInParts } from './check.ts'
import { inLines } from './lines.ts'

/** Access that is asked for, given over many places, taken over, drafted before it is changed, and checked. */
export function accessRoutes(parts: Parts, asker: (request: Request) => Asker): Router {
  const router = Router({ mergeParams: true })
  const id = (request: Request) => checked(idParams, request.params).id
  router.get('/grants', (request, response) => {
    response.json(grantsOverview(asker(request), checked(grantsQuery, request.query)))
  })
  router.get('/nodes/:id/access-to-copy', (request, response) => {
    response.json(takenOverView(asker(request), id(request), checked(takeOverQuery, request.query)))
  })
  router.get('/check/places', async (request, response) => {
    const who = checking(parts, asker(request))
    response.json(await placesToAsk(who, checked(placesQuery, request.query).find))
  })
  router.get('/drafts', async (request, response) => {
    response.json(await draftsView(parts, asker(request)))
  })
  router.post('/drafts', async (request, response) => {
    const who = asker(request)
    response.json(
      await addToDraft(parts, who, await checkedInParts(addToDraftRequest, request.body, 'edits')),
    )
  })
  router.put('/drafts/:id', async (request, response) => {
    const who = asker(request)
    const body = checked(draftRequest, request.body)
    response.json(await changeDraft(parts, who, { id: id(request), ...body }))
  })
  router.delete('/drafts/:id', async (request, response) => {
    response.json(await dropDraft(parts, asker(request), id(request)))
  })
  router.get('/drafts/:id', async (request, response) => {
    response.json(await draftView(parts, asker(request), id(request)))
  })
  router.get('/drafts/:id/items', async (request, response) => {
    const who = asker(request)
    const of = id(request)
    await inLines({ parts, request, response }, patience => draftItems(parts, who, { id: of, patience }))
  })
  router.get('/drafts/:id/recipients', async (request, response) => {
    const who = asker(request)
    const of = id(request)
    await inLines({ parts, request, response }, patience => recipientsView(parts, who, { id: of, patience }))
  })
  router.post('/drafts/:id/handover', async (request, response) => {
    const who = asker(request)
    const body = checked(handOverRequest, request.body)
    response.json(await handOverDraft(parts, who, { id: id(request), ...body }))
  })
  return router
}
