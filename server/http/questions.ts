import { type Request, Router } from 'express'
import {
  checkRequest,
  columnParams,
  diffQuery,
  idParams,
  pageQuery,
  pastQuery,
  whyNotParams,
} from '#contract/requests.ts'
import type { Parts } from '../parts.ts'
import { type Asker, checking } from '../services/asker.ts'
import { columnPeopleView, columnsView } from '../services/columns.ts'
import { ownAccessView } from '../services/own-access.ts'
import { diffView, snapshotOfPast } from '../services/past.ts'
import { type Asked, checkView, whatView, whoView } from '../services/questions.ts'
import { whyNotView } from '../services/remedies.ts'
import { checked } from './check.ts'

/** The questions of the access model, each about now or, where it says so, about a past instant. */
export function questionRoutes(parts: Parts, asker: (request: Request) => Asker): Router {
  const router = Router({ mergeParams: true })
  const id = (request: Request) => checked(idParams, request.params).id
  const asked = async (request: Request): Promise<Asked & { page: { from?: string } }> => {
    const { at, ...page } = checked(pastQuery, request.query)
    const who = checking(parts, asker(request))
    const snapshot = at === undefined ? who.snapshot : await snapshotOfPast(parts, who, Number(at))
    return { asker: who, snapshot, page: checked(pageQuery, page) }
  }

  router.post('/check', (request, response) => {
    response.json(checkView(asker(request), checked(checkRequest, request.body)))
  })
  router.get('/nodes/:id/people', async (request, response) => {
    const question = await asked(request)
    response.json(whoView(question, id(request), question.page))
  })
  router.get('/people/:id/places', async (request, response) => {
    const question = await asked(request)
    response.json(await whatView(parts, question, { id: id(request), page: question.page }))
  })
  router.get('/nodes/:id/columns', (request, response) => {
    response.json(columnsView(asker(request), id(request)))
  })
  router.get('/nodes/:id/columns/:column/people', (request, response) => {
    const params = checked(columnParams, request.params)
    response.json(columnPeopleView(asker(request), params, checked(pageQuery, request.query)))
  })
  router.get('/nodes/:id/own-access', async (request, response) => {
    response.json(await ownAccessView(checking(parts, asker(request)), id(request)))
  })
  router.get('/nodes/:id/why-not/:person/:action', async (request, response) => {
    const params = checked(whyNotParams, request.params)
    response.json(await whyNotView(checking(parts, asker(request)), params, parts.clock))
  })
  router.get('/diff', async (request, response) => {
    response.json(await diffView(parts, asker(request), checked(diffQuery, request.query)))
  })
  return router
}
