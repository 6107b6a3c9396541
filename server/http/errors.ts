import type { ErrorRequestHandler, Request, RequestHandler, Response } from 'express'
import type { Problem } from '#contract/views/problem.ts'
import type { Parts } from '../parts.ts'
import { ProblemError, problemOf } from '../problem-error.ts'
import { noteSecurity, securityEventOf } from './security-log.ts'

export const notFound: RequestHandler = () => {
  throw problemOf('not-found')
}

/** The one place where a refusal becomes a reply, and where a fault of ours is logged. */
export function errorHandler(parts: Parts): ErrorRequestHandler {
  // Express knows an error handler by its four parameters.
  // eslint-disable-next-line max-params
  return (error: unknown, request, response, next) => {
    if (response.headersSent) {
      next(error)
      return
    }
    const problem = problemFor(parts, request, error)
    const event = securityEventOf(problem.type)
    if (event !== undefined) noteSecurity(parts, request, { event })
    sendProblem(response, problem)
  }
}

export function problemFor({ log }: Parts, request: Request, error: unknown): Problem {
  const known = knownProblem(error)
  if (known === undefined)
    log.error({ err: error as Error, route: request.route as unknown }, 'a request failed')
  return known ?? problemOf('fault').problem
}

export function sendProblem(response: Response, problem: Problem): void {
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem))
}

/** Those of the body parser come with a type of their own, those of missing files with a status. */
function knownProblem(error: unknown): Problem | undefined {
  if (error instanceof ProblemError) return error.problem
  const { type, status } = error as { type?: string; status?: number }
  if (status === 404) return problemOf('not-found').problem
  if (type === 'entity.too.large' || status === 413) return problemOf('too-large').problem
  // A charset or packing that nobody knows, a body cut off, an address with a broken percent sign: theirs to mend.
  return status !== undefined && status >= 400 && status < 500 ? problemOf('bad-json').problem : undefined
}
