import { create } from 'content-disposition'
import type { Request, Response } from 'express'
import { open } from 'node:fs/promises'
import { problemOf } from '../problem-error.ts'
import { pipeline } from 'node:stream/promises'
import type { Taken } from '../services/content/files.ts'
import type { Zip } from '../services/content/zip.ts'

/**
 * Kinds that a page of ours shows by itself: none that a browser would run anything of. Whatever else is sent is for keeping,
 * and says so.
 */
const shown = /^(image\/(png|jpeg|gif|webp|avif)|(audio|video)\/[\w.+-]+)$/

/** Nothing in it is ever run by a browser. */
const inert = {
  'content-security-policy': "default-src 'none'; sandbox",
  'x-content-type-options': 'nosniff',
}

/** So much is read of a file at once. */
const readTogether = 512 * 1024

/** Sends a file or the part of it that was asked for (RFC 9110). */
export async function sendFile(response: Response, { path, name, kind, hash, size }: Taken): Promise<void> {
  const { req: request } = response
  // The same bytes, whatever they are called: strong, so that parts of it can be put together.
  const tag = `"${hash}"`
  const part = partOf(request, { tag, size })
  response.set({
    'content-type': kind,
    'content-disposition': create(name, { type: shown.test(kind) ? 'inline' : 'attachment' }),
    ...inert,
    etag: tag,
    'accept-ranges': 'bytes',
    'cache-control': 'private, no-cache, no-transform',
  })
  if (request.fresh) {
    response.status(304).end()
    return
  }
  const { start, end } = part ?? { start: 0, end: size - 1 }
  if (part !== undefined) response.status(206).set('content-range', `bytes ${start}-${end}/${size}`)
  response.set('content-length', String(end - start + 1))
  if (request.method === 'HEAD' || size === 0) {
    response.end()
    return
  }
  // Opened first: what is not there is a fault, and no answer that breaks off.
  const file = await open(path)
  const bytes = file.createReadStream({ start, end, highWaterMark: readTogether })
  await pipeline(bytes, response).catch(() => response.destroy())
}

/** One part; several, what is no range, and a part of what has changed since are answered with the whole. Throws where there is no such part. */
function partOf(
  request: Request,
  { tag, size }: { readonly tag: string; readonly size: number },
): { readonly start: number; readonly end: number } | undefined {
  const isOfThis = (request.get('if-range') ?? tag) === tag
  const ranges = isOfThis ? request.range(size) : undefined
  if (ranges === -1) {
    request.res?.set('content-range', `bytes */${size}`)
    throw problemOf('no-range')
  }
  return ranges === undefined || ranges === -2 || ranges.type !== 'bytes' || ranges.length !== 1
    ? undefined
    : ranges[0]
}

/** Sends a ZIP as it is made. Where it cannot be made whole, or nobody takes it any more, it ends. */
export async function sendZip(response: Response, { name, bytes }: Zip): Promise<void> {
  response.set({
    'content-type': 'application/zip',
    'content-disposition': create(name),
    'cache-control': 'private, no-store, no-transform',
    ...inert,
  })
  await pipeline(bytes, response).catch(() => response.destroy())
}
