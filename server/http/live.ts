import { type Request, type Response, Router } from 'express'
import { liveQuery, slugParams } from '#contract/requests.ts'
import { leave, listen, type Message } from '../live/hub.ts'
import type { Parts } from '../parts.ts'
import { streamFor } from '../services/live.ts'
import { checked } from './check.ts'
import { accountOf } from './session.ts'

/** Often enough that nothing on the way takes the stream for dead, and that its reader notices when it is. */
const beatEvery = 15_000

/** Server-sent events: that something changed for the reader, never what. */
export function liveRoutes(parts: Parts): Router {
  const router = Router({ mergeParams: true })
  router.get('/live', (request, response) => {
    const { slug } = checked(slugParams, { slug: (request.params as { slug?: string }).slug })
    const { after } = checked(liveQuery, request.query)
    const stream = streamFor(parts, {
      account: accountOf(request),
      slug,
      session: request.sessionID,
      send: message => write(response, message),
      close: () => response.end(),
    })
    begin(response)
    listen(parts.hub, stream, lastIdOf(request) ?? after)
    const beat = setInterval(() => response.write('event: beat\ndata: {}\n\n'), beatEvery)
    response.on('close', () => {
      clearInterval(beat)
      leave(parts.hub, stream)
    })
  })
  return router
}

/** What a browser that lost the connection sends by itself; a new tab sends it as `after`. */
function lastIdOf(request: Request): string | undefined {
  const id = request.get('last-event-id')
  return id === undefined || id === '' ? undefined : id
}

function begin(response: Response): void {
  response.set({
    'content-type': 'text/event-stream',
    // Compressed, events would wait for one another.
    'cache-control': 'no-store, no-transform',
    'x-accel-buffering': 'no',
  })
  response.flushHeaders()
  response.write('retry: 1000\n\n')
}

function write(response: Response, { event, id, revision }: Message): void {
  response.write(`id: ${id}\nevent: ${event}\ndata: ${JSON.stringify({ revision, id })}\n\n`)
}
