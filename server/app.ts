import { join } from 'node:path'
import packedStatic from 'express-static-gzip'
import express, { type Express, type RequestHandler } from 'express'
import { rateLimit } from 'express-rate-limit'
import helmet from 'helmet'
import { pinoHttp } from 'pino-http'
import { problemOf } from './problem-error.ts'
import { errorHandler, notFound } from './http/errors.ts'
import { untilCome } from './http/coming.ts'
import { packing } from './http/packing.ts'
import { apiRoutes } from './http/routes.ts'
import { guardWrites } from './http/session.ts'
import type { Parts } from './parts.ts'

/** What an app is made of besides its parts. */
export interface AppOptions {
  readonly sessions: RequestHandler
  /** The built pages; none in tests of the API alone. */
  readonly webDir: string | null
  /** How many requests an address may send in a minute. */
  readonly requestsPerMinute: number
  /** How many sign-ins and looks at invitations an address may try in a minute. */
  readonly triesPerMinute: number
  /** Turns false while the server shuts down, and while nothing can be written. */
  readonly isReady: () => Promise<boolean>
}

/** The whole server as an Express app: a test mounts it on port 0. */
export function createApp(parts: Parts, options: AppOptions): Express {
  const app = express()
  app.disable('x-powered-by')
  if (parts.config.trustProxy !== undefined) app.set('trust proxy', parts.config.trustProxy)
  // Nothing of the API is kept by who asks; files have their own.
  app.disable('etag')
  app.get('/healthz', (_request, response) => void response.json({ status: 'alive' }))
  app.get('/readyz', async (_request, response) => {
    const ready = await options.isReady()
    response.status(ready ? 200 : 503).json({ status: ready ? 'ready' : 'not ready' })
  })
  app.use(securityHeaders(parts.config.baseUrl.startsWith('https:')))
  app.use('/api', api(parts, options))
  if (options.webDir !== null) app.use(pages(options.webDir))
  app.use(errorHandler(parts))
  return app
}

function api(parts: Parts, options: AppOptions): RequestHandler {
  const api = express.Router()
  api.use(pinoHttp({ logger: parts.log, serializers: { req: quietRequest, res: quietResponse } }))
  api.use((_request, response, next) => {
    response.set('cache-control', 'no-store')
    next()
  })
  api.use(untilCome)
  api.use(perMinute(options.requestsPerMinute))
  api.use(packing())
  // A table of ten thousand rows is large; nothing else has to be.
  api.use('/at/:slug/imports', express.json({ limit: '12mb' }))
  api.use(options.sessions, express.json({ limit: '2mb' }), guardWrites(parts))
  api.use(apiRoutes(parts, perMinute(options.triesPerMinute)), notFound)
  return api
}

const perMinute = (limit: number): RequestHandler =>
  rateLimit({
    windowMs: 60_000,
    limit,
    // The next draft has each address hashed with each request.
    standardHeaders: 'draft-7',
    legacyHeaders: false,
    handler: (_request, _response, next) => next(problemOf('too-many')),
  })

function securityHeaders(isSecure: boolean): RequestHandler {
  return helmet({
    strictTransportSecurity: isSecure,
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        imgSrc: ["'self'", 'data:'],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
        objectSrc: ["'none'"],
      },
    },
  })
}

/**
 * Files under their hashed names may be kept for ever, and leave as they were packed when they were built; the page that
 * names them is always asked for.
 */
function pages(webDir: string): RequestHandler {
  const router = express.Router()
  router.use(
    '/assets',
    packedStatic(join(webDir, 'assets'), {
      index: false,
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: { immutable: true, maxAge: '1y', fallthrough: false },
    }),
  )
  router.use(express.static(webDir, { index: false }))
  router.use((request, response, next) => {
    if (request.method !== 'GET' && request.method !== 'HEAD') {
      next(problemOf('not-found'))
      return
    }
    // By root and name: in a whole path the dot of the build folder would hide the file.
    response.set('cache-control', 'no-cache').sendFile('index.html', { root: webDir })
  })
  return router
}

// Neither headers nor bodies: cookies, passwords and tokens never reach a log.
const quietRequest = ({ id, method, url }: { id: unknown; method: string; url: string }) => ({
  id,
  method,
  url,
})
const quietResponse = ({ statusCode }: { statusCode: number }) => ({ statusCode })
