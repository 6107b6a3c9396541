import type { RequestHandler } from 'express'

/** So long a request may take to come whole, in milliseconds. */
const longest = 300_000
/** What comes as a stream takes as long as it takes, with so long between two pieces of it. */
const silentFor = 60_000

/** Ends requests that do not come: who sends a file slowly is waited for, who sends nothing is not. */
export const untilCome: RequestHandler = (request, _response, next) => {
  if (request.method === 'PATCH') request.setTimeout(silentFor, () => request.destroy())
  else {
    const giveUp = setTimeout(() => {
      if (!request.complete) request.destroy()
    }, longest).unref()
    request.on('close', () => clearTimeout(giveUp))
  }
  next()
}
