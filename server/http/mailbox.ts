import { Router } from 'express'
import type { Parts } from '../parts.ts'
import { mailbox } from '../services/mailbox.ts'

/** The demo's mailbox: everything that was mailed to anybody. Mounted in demo mode only. */
export function mailboxRoutes(parts: Parts): Router {
  const router = Router()
  router.get('/', async (_request, response) => {
    response.json(await mailbox(parts))
  })
  return router
}
