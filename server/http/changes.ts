import { setImmediate } from 'node:timers/promises'
import { type Request, Router } from 'express'
import { changeSetRequest } from '#contract/requests.ts'
import type { Parts } from '../parts.ts'
import type { Asker } from '../services/asker.ts'
import { applyChangeSet } from '../services/change.ts'
import { preview } from '../services/preview.ts'
import { checkedInParts } from './check.ts'
import { inLines } from './lines.ts'

const large = 100_000

/** A large body took its time to be read: others are let in before it is checked. */
async function afterReading(request: Request): Promise<void> {
  if (Number(request.get('content-length') ?? 0) > large) await setImmediate()
}

/** What a change set would do, and the change set itself. */
export function changeRoutes(parts: Parts, asker: (request: Request) => Asker): Router {
  const router = Router({ mergeParams: true })
  router.post('/changes', async (request, response) => {
    const who = asker(request)
    await afterReading(request)
    const set = await checkedInParts(changeSetRequest, request.body, 'edits')
    await inLines({ parts, request, response }, patience =>
      applyChangeSet(parts, who, { request: set, patience }),
    )
  })
  router.post('/changes/preview', async (request, response) => {
    const who = asker(request)
    await afterReading(request)
    const set = await checkedInParts(changeSetRequest, request.body, 'edits')
    await inLines({ parts, request, response }, patience => preview(parts, who, { request: set, patience }))
  })
  return router
}
