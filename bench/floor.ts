import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import express from 'express'
import { rateLimit } from 'express-rate-limit'
import helmet from 'helmet'
import { pinoHttp } from 'pino-http'
import { packing } from '#server/http/packing.ts'
import { createSessions, guardWrites } from '#server/http/session.ts'
import type { Parts } from '#server/parts.ts'

/** The stack that every request to the API goes through, as server/app.ts has it, with one answer to all. */
export function fixedAnswer(parts: Parts, body: string): Promise<{ address: string; server: Server }> {
  const app = express()
  app.disable('x-powered-by')
  app.disable('etag')
  app.use(helmet())
  const api = express.Router()
  api.use(pinoHttp({ logger: parts.log }))
  api.use(rateLimit({ windowMs: 60_000, limit: 1e9, standardHeaders: 'draft-7', legacyHeaders: false }))
  api.use(packing())
  api.use(createSessions(parts), express.json({ limit: '2mb' }), guardWrites(parts))
  // Made once for each size: what is measured is its way.
  const bodies = new Map<number, string>()
  api.get('/fixed', ({ query }, response) => {
    const bytes = Number(query['bytes'] ?? 0)
    if (bytes > 0 && !bodies.has(bytes)) bodies.set(bytes, JSON.stringify('x'.repeat(bytes)))
    response
      .set('cache-control', 'no-store')
      .type('json')
      .send(bodies.get(bytes) ?? body)
  })
  app.use('/api', api)
  const server = createServer(app)
  return new Promise(resolve =>
    server.listen(0, '127.0.0.1', () =>
      resolve({ address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, server }),
    ),
  )
}
