import { gzipSync } from 'node:zlib'
import compression from 'compression'
import type { RequestHandler } from 'express'

/** What fits into the first window of a connection takes one way there and back, packed or not. */
const leastBytes = 14 * 1024
/** So much is packed in a fraction of a millisecond. More is left to a thread, which costs turns of the loop. */
const mostInPlace = 128 * 1024
/** Lightly: somewhat more to send, in half the time. */
const lightly = { level: 1 }

const packInPlace: RequestHandler = (request, response, next) => {
  response.json = body => {
    const text = JSON.stringify(body)
    if (response.get('content-type') === undefined) response.type('json')
    const isPacked =
      text.length >= leastBytes && text.length <= mostInPlace && request.acceptsEncodings('gzip') === 'gzip'
    if (!isPacked) return response.send(text)
    return response.set('content-encoding', 'gzip').send(gzipSync(text, lightly))
  }
  next()
}

/** Packs answers: those of a middling size at once, larger ones and what is sent bit by bit as they go. */
export const packing = (): RequestHandler[] => [compression({ threshold: leastBytes }), packInPlace]
