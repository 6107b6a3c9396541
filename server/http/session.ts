import { randomBytes } from 'node:crypto'
import type { Request, RequestHandler } from 'express'
import session from 'express-session'
import type { AccountId } from '#core/base/ids.ts'
import type { Parts } from '../parts.ts'
import { problemOf } from '../problem-error.ts'
import { SignInStore } from '../services/account/sign-in-store.ts'

declare module 'express-session' {
  interface SessionData {
    account: AccountId
    csrf: string
    agent: string
    madeAt: number
  }
}

/** No workspace lets a sign-in last longer; most end it earlier. */
const days = 90

/** Under https: a prefix by which browsers take a cookie from this host alone, over a line that nobody reads. */
export const cookieName = ({ config }: Pick<Parts, 'config'>, what: 'session' | 'devices'): string => {
  const name = what === 'session' ? 'noskel' : 'noskel-devices'
  return config.baseUrl.startsWith('https:') ? `__Host-${name}` : name
}

/** What browsers ask of a cookie with such a prefix, also where it is taken away. */
export const cookieOf = ({ config }: Pick<Parts, 'config'>) =>
  ({ httpOnly: true, sameSite: 'lax', secure: config.baseUrl.startsWith('https:'), path: '/' }) as const

/** Cookie sessions, each with whose it is and at which browser. */
export function createSessions(parts: Parts): RequestHandler {
  const secure = parts.config.baseUrl.startsWith('https:')
  const sessions = session({
    store: new SignInStore(parts.sessions),
    secret: parts.secret,
    name: cookieName(parts, 'session'),
    resave: false,
    saveUninitialized: false,
    cookie: { ...cookieOf(parts), maxAge: days * 86_400_000 },
    proxy: secure,
  })
  if (!secure) return sessions
  // This server speaks no TLS: where its address is https:, whatever is before it does, whether it says so or not.
  return (request, response, next) => {
    request.headers['x-forwarded-proto'] = 'https'
    sessions(request, response, next)
  }
}

/** Signs an account in under a new session id, so that an id known from before is worth nothing. */
export async function begin(
  { clock }: Pick<Parts, 'clock'>,
  request: Request,
  account: AccountId,
): Promise<void> {
  await settled(done => request.session.regenerate(done))
  request.session.account = account
  request.session.agent = (request.get('user-agent') ?? '').slice(0, 300)
  request.session.madeAt = clock()
  request.session.csrf = randomBytes(24).toString('base64url')
  await settled(done => request.session.save(done))
}

export const end = (request: Request): Promise<void> => settled(done => request.session.destroy(done))

export function accountOf(request: Request): AccountId {
  const { account } = request.session
  if (account === undefined) throw problemOf('not-signed-in')
  return account
}

/**
 * Against requests forged by other sites: a write must carry JSON or bytes, must come from our own pages where
 * the browser says whence it comes, and must repeat the session's token once there is a session.
 */
export const guardWrites =
  ({ config }: Pick<Parts, 'config'>): RequestHandler =>
  (request, _response, next) => {
    if (['GET', 'HEAD', 'OPTIONS'].includes(request.method)) {
      next()
      return
    }
    const site = request.get('sec-fetch-site')
    const isForeign = site !== undefined && site !== 'same-origin' && site !== 'none'
    const origin = request.get('origin')
    // A proxy may call this server by another name than people do.
    const own = [request.get('host'), hostOf(config.baseUrl)]
    const isOtherOrigin = origin !== undefined && !own.includes(hostOf(origin))
    const { csrf } = request.session
    const lacksToken = csrf !== undefined && request.get('x-noskel-csrf') !== csrf
    // None can be sent by another site's form; bytes are a picture, or part of a file.
    const carries = ['json', 'application/octet-stream', 'application/offset+octet-stream']
    const isEmpty = request.get('content-length') === '0' && request.get('content-type') === undefined
    const isForm = !isEmpty && request.is(carries) === false
    next(isForeign || isOtherOrigin || lacksToken || isForm ? problemOf('wrong-origin') : undefined)
  }

const hostOf = (origin: string): string => (URL.canParse(origin) ? new URL(origin).host : '')

const settled = (run: (done: (error?: unknown) => void) => void) =>
  new Promise<void>((resolve, reject) => {
    run(error => {
      if (!isError(error)) resolve()
      else reject(error instanceof Error ? error : new Error('the session could not be kept'))
    })
  })

const isError = (error: unknown): boolean => error !== undefined && error !== null
