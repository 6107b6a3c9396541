import { setImmediate } from 'node:timers/promises'
import { type TSchema, Type } from '@sinclair/typebox'
import { raw, type Request, type RequestHandler, type Response, Router } from 'express'
import { type Operation, operations, type PathOf } from '#contract/operations.ts'
import { line, strict } from '#contract/pieces.ts'
import { isSchema, type Route } from '#contract/route.ts'
import { type AnswerOf, type ExchangeOf, routes } from '#contract/routes.ts'
import type { AccountId } from '#core/base/ids.ts'
import type { Parts } from '../parts.ts'
import type { Asker } from '../services/viewer/asker.ts'
import type { Patience } from '../worker/asking.ts'
import { checked, checkedInParts } from './check.ts'
import { inLines } from './lines.ts'

/** What a handler is given: all of it checked by the schemas of its route. */
export type Given<O extends Operation> = Pick<ExchangeOf<O>, 'params' | 'query' | 'body'> & {
  readonly request: Request
  readonly response: Response
  readonly patience: Patience
}

/** What is no JSON is answered as it goes over the wire; events write by themselves. */
type Answered<O extends Operation> =
  AnswerOf<O> extends undefined ? Uint8Array | string | undefined | void : AnswerOf<O>

type Handler<Who, O extends Operation> = (who: Who, given: Given<O>) => Answered<O> | Promise<Answered<O>>

/** Whoever asks is known by the address: in a workspace, by their account, or not at all. */
type InWorkspace = {
  [O in Operation]: PathOf<O> extends `/at/{slug}${string}` ? O : never
}[Operation]
type OfAccount = {
  [O in Operation]: PathOf<O> extends `/account${'' | `/${string}`}` | '/workspaces' ? O : never
}[Operation]

export type WorkspaceHandlers = { readonly [O in InWorkspace]: Handler<Asker, O> }
export type AccountHandlers = { readonly [O in OfAccount]: Handler<AccountId, O> }
export type OpenHandlers = {
  readonly [O in Exclude<Operation, InWorkspace | OfAccount>]: Handler<undefined, O>
}

interface Mounting<Who> {
  readonly handlers: Readonly<Record<string, Handler<Who, never>>>
  /** Settles who asks, or refuses. Before anything else is looked at: nothing else is told to who may not know. */
  readonly whoIn: (request: Request) => Who | Promise<Who>
  readonly fewTries: RequestHandler
}

/** Makes routes of handlers: the one place where a request is checked and a question becomes an answer. */
export function mount<Who>(parts: Parts, { handlers, whoIn, fewTries }: Mounting<Who>): Router {
  const router = Router()
  for (const operation of Object.keys(handlers) as Operation[]) {
    const route: Route = routes[operation]
    const [method, path] = operations[operation]
    const handle = handlers[operation] as unknown as Handler<Who, Operation>
    const params = paramsOf(path, route)
    router[verbs[method]](
      path.replaceAll(/\{(\w+)\}/g, ':$1'),
      ...(route.isTry === true ? [fewTries] : []),
      ...(isBytes(route.body) ? [readBytes] : []),
      async (request, response) => {
        const who = await whoIn(request)
        const given = {
          params: checked(params, request.params),
          query: checked(route.query ?? noQuery, request.query),
          body: await bodyIn(route, request),
        }
        const answer = (patience: Patience) =>
          handle(who, { ...given, request, response, patience } as unknown as Given<Operation>)
        if (route.isSlow === true)
          await inLines({ parts, request, response }, patience => answer(patience) as Promise<object>)
        else send(response, route, await answer({}))
      },
    )
  }
  return router
}

const verbs = {
  GET: 'get',
  HEAD: 'head',
  OPTIONS: 'options',
  POST: 'post',
  PUT: 'put',
  PATCH: 'patch',
  DELETE: 'delete',
} as const
const isBytes = (body: Route['body']): boolean =>
  body !== undefined && !isSchema(body) && body.kind === 'bytes'
const noQuery = Type.Object({}, strict)
const readBytes = raw({ type: 'application/octet-stream', limit: '8mb' })

/** What stands in an address is any short text: what is not there is not found, whatever its form. */
const paramsOf = (path: string, route: Route): TSchema =>
  Type.Object(
    Object.fromEntries(
      [...path.matchAll(/\{(\w+)\}/g)].map(([, name = '']) => [name, route.params?.[name] ?? line(60, 1)]),
    ),
  )

const large = 100_000

async function bodyIn({ body, long }: Route, request: Request): Promise<unknown> {
  if (body === undefined) return undefined
  // What comes as a stream is read by whoever takes it.
  if (!isSchema(body)) return body.kind === 'stream' ? undefined : request.body
  // A large body took its time to be read: others are let in before it is checked.
  if (Number(request.get('content-length') ?? 0) > large) await setImmediate()
  return long === undefined ? checked(body, request.body) : checkedInParts(body, request.body, long)
}

function send(response: Response, { answer, status }: Route, body: unknown): void {
  if (isSchema(answer)) response.status(status ?? 200).json(body)
  else if (answer.kind === 'bytes') response.type(answer.type).send(body)
  else if (answer.kind === 'nothing') response.status(204).end()
  else if (answer.kind === 'headers')
    response.status(status ?? (response.req.method === 'HEAD' ? 200 : 204)).end()
}
