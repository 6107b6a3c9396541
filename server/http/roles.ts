import { type Request, Router } from 'express'
import { idParams, outlineQuery } from '#contract/requests.ts'
import type { Parts } from '../parts.ts'
import type { Asker } from '../services/asker.ts'
import { viewedView, viewingSessionsView } from '../services/viewing-sessions.ts'
import { ownersView } from '../services/owners.ts'
import { requestsView } from '../services/requests.ts'
import { holdersView, rolesToGive, rolesView } from '../services/roles.ts'
import { seatsView } from '../services/seats.ts'
import { checked } from './check.ts'

/** Roles and who holds them, what is asked for about them, owners, seats, and looking by privilege. */
export function roleRoutes(parts: Parts, asker: (request: Request) => Asker): Router {
  const router = Router({ mergeParams: true })
  const id = (request: Request) => checked(idParams, request.params).id
  router.get('/roles', (request, response) => {
    response.json(rolesView(asker(request)))
  })
  router.get('/roles/:id/holders', (request, response) => {
    response.json(holdersView(asker(request), id(request)))
  })
  router.get('/people/:id/roles-to-give', (request, response) => {
    response.json(rolesToGive(asker(request), id(request)))
  })
  router.get('/requests', (request, response) => {
    response.json(requestsView(asker(request)))
  })
  router.get('/owners', (request, response) => {
    response.json(ownersView(asker(request)))
  })
  router.get('/seats', async (request, response) => {
    response.json(await seatsView(parts, asker(request)))
  })
  router.get('/sessions', (request, response) => {
    response.json(viewingSessionsView(parts, asker(request)))
  })
  router.get('/sessions/:id', async (request, response) => {
    const { node } = checked(outlineQuery, request.query)
    response.json(await viewedView(parts, asker(request), { id: id(request), node }))
  })
  return router
}
