import { type Request, Router } from 'express'
import { changeSetRequest } from '#contract/requests.ts'
import type { Parts } from '../parts.ts'
import type { Asker } from '../services/asker.ts'
import { applyChangeSet } from '../services/change.ts'
import { foresee } from '../services/foresee.ts'
import { checked } from './check.ts'
import { inLines } from './lines.ts'

/** What a change set would do, and the change set itself. */
export function changeRoutes(parts: Parts, asker: (request: Request) => Asker): Router {
  const router = Router({ mergeParams: true })
  router.post('/changes', async (request, response) => {
    const who = asker(request)
    response.json(await applyChangeSet(parts, who, checked(changeSetRequest, request.body)))
  })
  router.post('/changes/foresee', async (request, response) => {
    const who = asker(request)
    const set = checked(changeSetRequest, request.body)
    await inLines({ parts, request, response }, patience => foresee(parts, who, { request: set, patience }))
  })
  return router
}
